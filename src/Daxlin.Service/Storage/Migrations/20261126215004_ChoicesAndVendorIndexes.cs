using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class ChoicesAndVendorIndexes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "TaxRounding",
                table: "Invoices",
                type: "INTEGER",
                nullable: false,
                defaultValue: 7);

            migrationBuilder.CreateTable(
                name: "TemplateChoices",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    IntakeId = table.Column<int>(type: "INTEGER", nullable: false),
                    FirstPage = table.Column<int>(type: "INTEGER", nullable: false),
                    LastPage = table.Column<int>(type: "INTEGER", nullable: false),
                    Template = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_TemplateChoices", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_VendorId_IntakeId",
                table: "Invoices",
                columns: new[] { "VendorId", "IntakeId" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_VendorId_IsCreditNote_State",
                table: "Invoices",
                columns: new[] { "VendorId", "IsCreditNote", "State" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_VendorId_State_Iban_HeldBy",
                table: "Invoices",
                columns: new[] { "VendorId", "State", "Iban", "HeldBy" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_VendorId_State_TaxRounding",
                table: "Invoices",
                columns: new[] { "VendorId", "State", "TaxRounding" });

            migrationBuilder.CreateIndex(
                name: "IX_TemplateChoices_IntakeId",
                table: "TemplateChoices",
                column: "IntakeId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "TemplateChoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_VendorId_IntakeId",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_VendorId_IsCreditNote_State",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_VendorId_State_Iban_HeldBy",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_VendorId_State_TaxRounding",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "TaxRounding",
                table: "Invoices");
        }
    }
}
