using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.PostgresMigrations
{
    /// <inheritdoc />
    public partial class StatedBySources : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
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
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "IsCover",
                table: "SourceItems");

            migrationBuilder.DropColumn(
                name: "Stated",
                table: "SourceItems");
        }
    }
}
