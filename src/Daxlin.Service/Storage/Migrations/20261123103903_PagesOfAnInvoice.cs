using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class PagesOfAnInvoice : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "FirstPage",
                table: "Invoices",
                type: "INTEGER",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.AddColumn<int>(
                name: "LastPage",
                table: "Invoices",
                type: "INTEGER",
                nullable: false,
                defaultValue: 1);

            // Until now a document was one invoice, on all of its pages.
            migrationBuilder.Sql("UPDATE Invoices SET LastPage = MAX(1, (SELECT Pages FROM Intakes WHERE Intakes.Id = Invoices.IntakeId))");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "FirstPage",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "LastPage",
                table: "Invoices");
        }
    }
}
