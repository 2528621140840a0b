using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class LooksAndRecognition : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "Others",
                table: "Rehearsals",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "OthersRecognised",
                table: "Rehearsals",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Own",
                table: "Rehearsals",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "OwnRecognised",
                table: "Rehearsals",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<byte[]>(
                name: "Looks",
                table: "Invoices",
                type: "BLOB",
                nullable: false,
                defaultValue: new byte[0]);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Others",
                table: "Rehearsals");

            migrationBuilder.DropColumn(
                name: "OthersRecognised",
                table: "Rehearsals");

            migrationBuilder.DropColumn(
                name: "Own",
                table: "Rehearsals");

            migrationBuilder.DropColumn(
                name: "OwnRecognised",
                table: "Rehearsals");

            migrationBuilder.DropColumn(
                name: "Looks",
                table: "Invoices");
        }
    }
}
