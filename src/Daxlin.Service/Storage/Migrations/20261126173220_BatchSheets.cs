using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class BatchSheets : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "HeldBy",
                table: "Invoices",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "IsTouched",
                table: "Invoices",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "Numbers",
                table: "Invoices",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "NumbersTied",
                table: "Invoices",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "ControlTotals",
                table: "Batches",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<int>(
                name: "Revision",
                table: "Batches",
                type: "INTEGER",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.CreateIndex(
                name: "IX_VendorSpellings_Name",
                table: "VendorSpellings",
                column: "Name");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_VendorSpellings_Name",
                table: "VendorSpellings");

            migrationBuilder.DropColumn(
                name: "HeldBy",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "IsTouched",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "Numbers",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "NumbersTied",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "ControlTotals",
                table: "Batches");

            migrationBuilder.DropColumn(
                name: "Revision",
                table: "Batches");
        }
    }
}
