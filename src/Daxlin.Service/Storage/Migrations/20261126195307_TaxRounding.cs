using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class TaxRounding : Migration
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

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_VendorId_State_TaxRounding",
                table: "Invoices",
                columns: new[] { "VendorId", "State", "TaxRounding" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Invoices_VendorId_State_TaxRounding",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "TaxRounding",
                table: "Invoices");
        }
    }
}
