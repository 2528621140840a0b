using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class VendorIndexes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
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
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Invoices_VendorId_IntakeId",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_VendorId_IsCreditNote_State",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_VendorId_State_Iban_HeldBy",
                table: "Invoices");
        }
    }
}
