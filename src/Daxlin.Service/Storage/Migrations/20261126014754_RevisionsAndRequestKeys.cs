using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class RevisionsAndRequestKeys : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Currency",
                table: "Templates",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "RequestKey",
                table: "PostingRuns",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Revision",
                table: "Invoices",
                type: "INTEGER",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.CreateIndex(
                name: "IX_PostingRuns_RequestKey",
                table: "PostingRuns",
                column: "RequestKey",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_PostingRuns_RequestKey",
                table: "PostingRuns");

            migrationBuilder.DropColumn(
                name: "Currency",
                table: "Templates");

            migrationBuilder.DropColumn(
                name: "RequestKey",
                table: "PostingRuns");

            migrationBuilder.DropColumn(
                name: "Revision",
                table: "Invoices");
        }
    }
}
