using System;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Daxlin.Service.Storage.PostgresMigrations
{
    /// <inheritdoc />
    public partial class Schedules : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "ScheduleStates",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    IsPaused = table.Column<bool>(type: "boolean", nullable: false),
                    NextAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    LastAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    Trouble = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    TroubleSince = table.Column<DateTime>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ScheduleStates", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "ScheduledTurns",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Schedule = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Version = table.Column<int>(type: "integer", nullable: false),
                    DueAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    At = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    By = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Outcome = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Runs = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Says = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Subject = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Text = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    State = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Attempts = table.Column<int>(type: "integer", nullable: false),
                    NextAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    SentAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ScheduledTurns", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Schedules",
                columns: table => new
                {
                    Id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Version = table.Column<int>(type: "integer", nullable: false),
                    Document = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    SavedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    SavedBy = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Note = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    IsRetired = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Schedules", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_ScheduleStates_Name",
                table: "ScheduleStates",
                column: "Name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_ScheduledTurns_Schedule_Id",
                table: "ScheduledTurns",
                columns: new[] { "Schedule", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_ScheduledTurns_State",
                table: "ScheduledTurns",
                column: "State");

            migrationBuilder.CreateIndex(
                name: "IX_Schedules_Name_Version",
                table: "Schedules",
                columns: new[] { "Name", "Version" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ScheduleStates");

            migrationBuilder.DropTable(
                name: "ScheduledTurns");

            migrationBuilder.DropTable(
                name: "Schedules");
        }
    }
}
