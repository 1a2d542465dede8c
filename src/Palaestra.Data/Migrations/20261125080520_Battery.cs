using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class Battery : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Battery",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "BatteryVersion",
                table: "Visits",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Battery",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "BatteryVersion",
                table: "Visits");
        }
    }
}
