using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class StatedToldAndSent : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_SourceItems_Source_Name",
                table: "SourceItems");

            migrationBuilder.AddColumn<bool>(
                name: "IsCover",
                table: "SourceItems",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Stated",
                table: "SourceItems",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.CreateTable(
                name: "CaptureNotices",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    IntakeId = table.Column<int>(type: "INTEGER", nullable: false),
                    Receiver = table.Column<string>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Says = table.Column<string>(type: "TEXT", nullable: false),
                    Attempts = table.Column<int>(type: "INTEGER", nullable: false),
                    NextAt = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CaptureNotices", x => x.Id);
                    table.ForeignKey(
                        name: "FK_CaptureNotices_Intakes_IntakeId",
                        column: x => x.IntakeId,
                        principalTable: "Intakes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "LettersToVendors",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    InvoiceId = table.Column<int>(type: "INTEGER", nullable: false),
                    Source = table.Column<string>(type: "TEXT", nullable: false),
                    To = table.Column<string>(type: "TEXT", nullable: false),
                    Subject = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    InReplyTo = table.Column<string>(type: "TEXT", nullable: false),
                    AskedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Says = table.Column<string>(type: "TEXT", nullable: false),
                    Attempts = table.Column<int>(type: "INTEGER", nullable: false),
                    NextAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    SentAt = table.Column<DateTime>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LettersToVendors", x => x.Id);
                    table.ForeignKey(
                        name: "FK_LettersToVendors_InvoiceRecords_InvoiceId",
                        column: x => x.InvoiceId,
                        principalTable: "InvoiceRecords",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_SourceItems_Source_Stamp",
                table: "SourceItems",
                columns: new[] { "Source", "Stamp" });

            migrationBuilder.CreateIndex(
                name: "IX_CaptureNotices_IntakeId_Receiver",
                table: "CaptureNotices",
                columns: new[] { "IntakeId", "Receiver" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_CaptureNotices_State_NextAt",
                table: "CaptureNotices",
                columns: new[] { "State", "NextAt" });

            migrationBuilder.CreateIndex(
                name: "IX_LettersToVendors_InvoiceId",
                table: "LettersToVendors",
                column: "InvoiceId");

            migrationBuilder.CreateIndex(
                name: "IX_LettersToVendors_State",
                table: "LettersToVendors",
                column: "State");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "CaptureNotices");

            migrationBuilder.DropTable(
                name: "LettersToVendors");

            migrationBuilder.DropIndex(
                name: "IX_SourceItems_Source_Stamp",
                table: "SourceItems");

            migrationBuilder.DropColumn(
                name: "IsCover",
                table: "SourceItems");

            migrationBuilder.DropColumn(
                name: "Stated",
                table: "SourceItems");

            migrationBuilder.CreateIndex(
                name: "IX_SourceItems_Source_Name",
                table: "SourceItems",
                columns: new[] { "Source", "Name" });
        }
    }
}
