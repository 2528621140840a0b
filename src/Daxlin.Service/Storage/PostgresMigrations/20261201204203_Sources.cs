using System;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Daxlin.Service.Storage.PostgresMigrations
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
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Source = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Key = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Stamp = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    From = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    At = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    Sha256 = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Size = table.Column<long>(type: "bigint", nullable: false),
                    BatchId = table.Column<int>(type: "integer", nullable: true),
                    Documents = table.Column<int>(type: "integer", nullable: false),
                    LeftOut = table.Column<int>(type: "integer", nullable: false),
                    Parts = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    AnswerState = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    AnswerTo = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    MessageId = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    AnswerSays = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    AnsweredAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    AnswerAttempts = table.Column<int>(type: "integer", nullable: false),
                    AnswerNextAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true)
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
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    IsPaused = table.Column<bool>(type: "boolean", nullable: false),
                    LookedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    TakenAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    Reached = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    Trouble = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    TroubleSince = table.Column<DateTime>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SourceStates", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Sources",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Version = table.Column<int>(type: "integer", nullable: false),
                    Document = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    SavedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    SavedBy = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Note = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    IsRetired = table.Column<bool>(type: "boolean", nullable: false)
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
