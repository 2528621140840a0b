using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.Migrations
{
    /// <inheritdoc />
    public partial class ClosedPeriods : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<DateOnly>(
                name: "ClosedThrough",
                table: "PostingRuns",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateOnly>(
                name: "PostingDate",
                table: "PostingRuns",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "PeriodClosings",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    Through = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PeriodClosings", x => x.Id);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "PeriodClosings");

            migrationBuilder.DropColumn(
                name: "ClosedThrough",
                table: "PostingRuns");

            migrationBuilder.DropColumn(
                name: "PostingDate",
                table: "PostingRuns");
        }
    }
}
