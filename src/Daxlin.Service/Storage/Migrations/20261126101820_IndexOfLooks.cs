using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class IndexOfLooks : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateIndex(
                name: "IX_Invoices_State_LooksLike",
                table: "Invoices",
                columns: new[] { "State", "LooksLike" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Invoices_State_LooksLike",
                table: "Invoices");
        }
    }
}
