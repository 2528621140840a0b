using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Daxlin.Service.Storage.PostgresMigrations
{
    /// <inheritdoc />
    public partial class Nodes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Nodes",
                columns: table => new
                {
                    Name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    Version = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    StartedAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    SeenAt = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    Readers = table.Column<int>(type: "integer", nullable: false),
                    Reading = table.Column<int>(type: "integer", nullable: false),
                    Captured = table.Column<long>(type: "bigint", nullable: false),
                    SetAside = table.Column<long>(type: "bigint", nullable: false),
                    Deaths = table.Column<long>(type: "bigint", nullable: false),
                    Trouble = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Nodes", x => x.Name);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Nodes");
        }
    }
}
