using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class PostingLayouts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Layout",
                table: "PostingRuns",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "LayoutVersion",
                table: "PostingRuns",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Reverses",
                table: "PostingRuns",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Lists",
                table: "PostingRuns",
                type: "TEXT",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<string>(
                name: "Reason",
                table: "PostingRuns",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            // An invoice may be in several runs since, all but one of them taken back, so rows have numbers of their own.
            migrationBuilder.Sql("DROP INDEX \"IX_PostedInvoices_RunNumber\"");
            migrationBuilder.Sql("ALTER TABLE \"PostedInvoices\" RENAME TO \"EarlierPostedInvoices\"");
            migrationBuilder.CreateTable(
                name: "PostedInvoices",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    InvoiceId = table.Column<int>(type: "INTEGER", nullable: false),
                    RunNumber = table.Column<int>(type: "INTEGER", nullable: false),
                    WithdrawnIn = table.Column<int>(type: "INTEGER", nullable: true),
                    Origin = table.Column<string>(type: "TEXT", nullable: false),
                    ContentSha256 = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PostedInvoices", x => x.Id);
                });
            migrationBuilder.Sql("INSERT INTO \"PostedInvoices\" (\"InvoiceId\", \"RunNumber\", \"Origin\", \"ContentSha256\") SELECT \"InvoiceId\", \"RunNumber\", '', '' FROM \"EarlierPostedInvoices\" ORDER BY \"InvoiceId\"");
            migrationBuilder.Sql("DROP TABLE \"EarlierPostedInvoices\"");

            migrationBuilder.CreateTable(
                name: "Layouts",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false),
                    SavedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    SavedBy = table.Column<string>(type: "TEXT", nullable: false),
                    Note = table.Column<string>(type: "TEXT", nullable: false),
                    IsRetired = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Layouts", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Lists",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Entries = table.Column<string>(type: "TEXT", nullable: false),
                    Count = table.Column<int>(type: "INTEGER", nullable: false),
                    SavedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    SavedBy = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Lists", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "PostedFiles",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    RunNumber = table.Column<int>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    MediaType = table.Column<string>(type: "TEXT", nullable: false),
                    Records = table.Column<int>(type: "INTEGER", nullable: false),
                    Content = table.Column<byte[]>(type: "BLOB", nullable: false),
                    Sha256 = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PostedFiles", x => x.Id);
                });

            // The hashes are filled in when the service starts.
            migrationBuilder.Sql("INSERT INTO \"PostedFiles\" (\"RunNumber\", \"Name\", \"MediaType\", \"Records\", \"Content\", \"Sha256\") SELECT \"Number\", 'posting-run-' || \"Number\" || '.csv', 'text/csv; charset=utf-8', \"Rows\", CAST(\"File\" AS BLOB), '' FROM \"PostingRuns\" ORDER BY \"Number\"");
            migrationBuilder.Sql("ALTER TABLE \"PostingRuns\" DROP COLUMN \"File\"");

            migrationBuilder.CreateIndex(
                name: "IX_PostedInvoices_RunNumber",
                table: "PostedInvoices",
                column: "RunNumber");

            migrationBuilder.CreateIndex(
                name: "IX_PostingRuns_Reverses",
                table: "PostingRuns",
                column: "Reverses");

            migrationBuilder.CreateIndex(
                name: "IX_PostedInvoices_InvoiceId",
                table: "PostedInvoices",
                column: "InvoiceId",
                unique: true,
                filter: "\"WithdrawnIn\" IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Layouts_Name_Version",
                table: "Layouts",
                columns: new[] { "Name", "Version" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Lists_Name_Version",
                table: "Lists",
                columns: new[] { "Name", "Version" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PostedFiles_RunNumber_Name",
                table: "PostedFiles",
                columns: new[] { "RunNumber", "Name" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Runs that were taken back have no place in the earlier form; restore the data folder from a backup.");
    }
}
