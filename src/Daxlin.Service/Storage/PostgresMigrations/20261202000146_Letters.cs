using System;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Daxlin.Service.Storage.PostgresMigrations
{
    /// <inheritdoc />
    public partial class Letters : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
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
                name: "LettersToVendors");
        }
    }
}
