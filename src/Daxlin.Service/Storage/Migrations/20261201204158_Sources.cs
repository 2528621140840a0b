using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Sources : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "SourceItems",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Source = table.Column<string>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Stamp = table.Column<string>(type: "TEXT", nullable: false),
                    From = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Sha256 = table.Column<string>(type: "TEXT", nullable: false),
                    Size = table.Column<long>(type: "INTEGER", nullable: false),
                    BatchId = table.Column<int>(type: "INTEGER", nullable: true),
                    Documents = table.Column<int>(type: "INTEGER", nullable: false),
                    LeftOut = table.Column<int>(type: "INTEGER", nullable: false),
                    Parts = table.Column<string>(type: "TEXT", nullable: false),
                    AnswerState = table.Column<string>(type: "TEXT", nullable: false),
                    AnswerTo = table.Column<string>(type: "TEXT", nullable: false),
                    MessageId = table.Column<string>(type: "TEXT", nullable: false),
                    AnswerSays = table.Column<string>(type: "TEXT", nullable: false),
                    AnsweredAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    AnswerAttempts = table.Column<int>(type: "INTEGER", nullable: false),
                    AnswerNextAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SourceItems", x => x.Id);
                    table.ForeignKey(
                        name: "FK_SourceItems_Batches_BatchId",
                        column: x => x.BatchId,
                        principalTable: "Batches",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "SourceStates",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    IsPaused = table.Column<bool>(type: "INTEGER", nullable: false),
                    LookedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    TakenAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    Reached = table.Column<string>(type: "TEXT", nullable: true),
                    Trouble = table.Column<string>(type: "TEXT", nullable: false),
                    TroubleSince = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SourceStates", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Sources",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false),
                    SavedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    SavedBy = table.Column<string>(type: "TEXT", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: false),
                    IsRetired = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Sources", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_SourceItems_AnswerState",
                table: "SourceItems",
                column: "AnswerState");

            migrationBuilder.CreateIndex(
                name: "IX_SourceItems_BatchId",
                table: "SourceItems",
                column: "BatchId");

            migrationBuilder.CreateIndex(
                name: "IX_SourceItems_Source_Id",
                table: "SourceItems",
                columns: new[] { "Source", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_SourceItems_Source_Key",
                table: "SourceItems",
                columns: new[] { "Source", "Key" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_SourceItems_Source_Name",
                table: "SourceItems",
                columns: new[] { "Source", "Name" });

            migrationBuilder.CreateIndex(
                name: "IX_SourceStates_Name",
                table: "SourceStates",
                column: "Name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Sources_Name_Version",
                table: "Sources",
                columns: new[] { "Name", "Version" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "SourceItems");

            migrationBuilder.DropTable(
                name: "SourceStates");

            migrationBuilder.DropTable(
                name: "Sources");
        }
    }
}
