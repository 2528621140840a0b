using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class ReviewQueue : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "DueDate",
                table: "Invoices",
                type: "TEXT",
                nullable: false,
                defaultValue: "9999-12-31");

            migrationBuilder.AddColumn<string>(
                name: "HandedTo",
                table: "Invoices",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<long>(
                name: "TotalSize",
                table: "Invoices",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<string>(
                name: "Letter",
                table: "Decisions",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            // What was captured before has its due date and its total in its record.
            migrationBuilder.Sql("""
                UPDATE Invoices SET
                    DueDate = CASE WHEN json_extract(Record, '$.fields.dueDate.type') = 'date' THEN json_extract(Record, '$.fields.dueDate.value') ELSE '9999-12-31' END,
                    TotalSize = CAST(ROUND(CAST(Total AS REAL) * 10000) AS INTEGER)
                """);

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_State_DueDate_Id",
                table: "Invoices",
                columns: new[] { "State", "DueDate", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_State_TotalSize_Id",
                table: "Invoices",
                columns: new[] { "State", "TotalSize", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_State_Vendor_Id",
                table: "Invoices",
                columns: new[] { "State", "Vendor", "Id" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Invoices_State_DueDate_Id",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_State_TotalSize_Id",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_State_Vendor_Id",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "DueDate",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "HandedTo",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "TotalSize",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "Letter",
                table: "Decisions");
        }
    }
}
