using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class TemplateHistory : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Formerly",
                table: "Templates",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "IsRetired",
                table: "Templates",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Note",
                table: "Templates",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Traits",
                table: "Invoices",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "DeskDrafts",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    InvoiceId = table.Column<int>(type: "INTEGER", nullable: false),
                    Vendor = table.Column<string>(type: "TEXT", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false),
                    ChangedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    ChangedBy = table.Column<string>(type: "TEXT", nullable: false),
                    Revision = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DeskDrafts", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Rehearsals",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Template = table.Column<string>(type: "TEXT", nullable: false),
                    BaseVersion = table.Column<int>(type: "INTEGER", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false),
                    BatchId = table.Column<int>(type: "INTEGER", nullable: true),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    RequestKey = table.Column<string>(type: "TEXT", nullable: true),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Failure = table.Column<string>(type: "TEXT", nullable: false),
                    Documents = table.Column<int>(type: "INTEGER", nullable: false),
                    Done = table.Column<int>(type: "INTEGER", nullable: false),
                    LastIntakeId = table.Column<int>(type: "INTEGER", nullable: false),
                    Same = table.Column<int>(type: "INTEGER", nullable: false),
                    Unreadable = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Rehearsals", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "RehearsalOutcomes",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    RehearsalId = table.Column<int>(type: "INTEGER", nullable: false),
                    InvoiceId = table.Column<int>(type: "INTEGER", nullable: false),
                    Verdict = table.Column<int>(type: "INTEGER", nullable: false),
                    Before = table.Column<string>(type: "TEXT", nullable: false),
                    After = table.Column<string>(type: "TEXT", nullable: false),
                    FirstFinding = table.Column<string>(type: "TEXT", nullable: false),
                    Changes = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RehearsalOutcomes", x => x.Id);
                    table.ForeignKey(
                        name: "FK_RehearsalOutcomes_Rehearsals_RehearsalId",
                        column: x => x.RehearsalId,
                        principalTable: "Rehearsals",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Template_TemplateVersion_IntakeId",
                table: "Invoices",
                columns: new[] { "Template", "TemplateVersion", "IntakeId" });

            migrationBuilder.CreateIndex(
                name: "IX_DeskDrafts_Key",
                table: "DeskDrafts",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_RehearsalOutcomes_RehearsalId_Verdict_InvoiceId",
                table: "RehearsalOutcomes",
                columns: new[] { "RehearsalId", "Verdict", "InvoiceId" });

            migrationBuilder.CreateIndex(
                name: "IX_Rehearsals_RequestKey",
                table: "Rehearsals",
                column: "RequestKey",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "DeskDrafts");

            migrationBuilder.DropTable(
                name: "RehearsalOutcomes");

            migrationBuilder.DropTable(
                name: "Rehearsals");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Template_TemplateVersion_IntakeId",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "Formerly",
                table: "Templates");

            migrationBuilder.DropColumn(
                name: "IsRetired",
                table: "Templates");

            migrationBuilder.DropColumn(
                name: "Note",
                table: "Templates");

            migrationBuilder.DropColumn(
                name: "Traits",
                table: "Invoices");
        }
    }
}
