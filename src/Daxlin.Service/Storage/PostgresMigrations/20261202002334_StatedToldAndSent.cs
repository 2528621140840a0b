using System;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Daxlin.Service.Storage.PostgresMigrations
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
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Stated",
                table: "SourceItems",
                type: "text",
                nullable: false,
                defaultValue: "[]",
                collation: "C");

            migrationBuilder.CreateTable(
                name: "CaptureNotices",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    IntakeId = table.Column<int>(type: "integer", nullable: false),
                    Receiver = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Key = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    State = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Says = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Attempts = table.Column<int>(type: "integer", nullable: false),
                    NextAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false)
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
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    InvoiceId = table.Column<int>(type: "integer", nullable: false),
                    Source = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    To = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Subject = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Text = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    InReplyTo = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    AskedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    State = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Says = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Attempts = table.Column<int>(type: "integer", nullable: false),
                    NextAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    SentAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true)
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
