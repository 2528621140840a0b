using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class CodingAndRecords : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "CodingVersion",
                table: "PostingRuns",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "CodedBy",
                table: "Invoices",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "CodedCases",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    VendorId = table.Column<int>(type: "INTEGER", nullable: false),
                    InvoiceId = table.Column<int>(type: "INTEGER", nullable: false),
                    Like = table.Column<string>(type: "TEXT", nullable: false),
                    Shares = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CodedCases", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Codings",
                columns: table => new
                {
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false),
                    SavedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    SavedBy = table.Column<string>(type: "TEXT", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Codings", x => x.Version);
                });

            migrationBuilder.CreateTable(
                name: "InvoiceRecords",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    Record = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_InvoiceRecords", x => x.Id);
                    table.ForeignKey(
                        name: "FK_InvoiceRecords_Invoices_Id",
                        column: x => x.Id,
                        principalTable: "Invoices",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            // Not the table rebuilt, which would have the records deleted with the rows that they are of.
            migrationBuilder.Sql("INSERT INTO \"InvoiceRecords\" (\"Id\", \"Record\") SELECT \"Id\", \"Record\" FROM \"Invoices\"");
            migrationBuilder.Sql("ALTER TABLE \"Invoices\" DROP COLUMN \"Record\"");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_State_CodedBy",
                table: "Invoices",
                columns: new[] { "State", "CodedBy" });

            migrationBuilder.CreateIndex(
                name: "IX_CodedCases_InvoiceId",
                table: "CodedCases",
                column: "InvoiceId");

            migrationBuilder.CreateIndex(
                name: "IX_CodedCases_VendorId_Like",
                table: "CodedCases",
                columns: new[] { "VendorId", "Like" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("ALTER TABLE \"Invoices\" ADD COLUMN \"Record\" TEXT NOT NULL DEFAULT '{}'");
            migrationBuilder.Sql("UPDATE \"Invoices\" SET \"Record\" = (SELECT \"Record\" FROM \"InvoiceRecords\" AS kept WHERE kept.\"Id\" = \"Invoices\".\"Id\")");

            migrationBuilder.DropTable(
                name: "CodedCases");

            migrationBuilder.DropTable(
                name: "Codings");

            migrationBuilder.DropTable(
                name: "InvoiceRecords");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_State_CodedBy",
                table: "Invoices");

            migrationBuilder.Sql("ALTER TABLE \"Invoices\" DROP COLUMN \"CodedBy\"");
            migrationBuilder.Sql("ALTER TABLE \"PostingRuns\" DROP COLUMN \"CodingVersion\"");
        }
    }
}
