using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.PostgresMigrations
{
    /// <inheritdoc />
    public partial class SourceItemStamps : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_SourceItems_Source_Name",
                table: "SourceItems");

            migrationBuilder.CreateIndex(
                name: "IX_SourceItems_Source_Stamp",
                table: "SourceItems",
                columns: new[] { "Source", "Stamp" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_SourceItems_Source_Stamp",
                table: "SourceItems");

            migrationBuilder.CreateIndex(
                name: "IX_SourceItems_Source_Name",
                table: "SourceItems",
                columns: new[] { "Source", "Name" });
        }
    }
}
