using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class ClinicTime : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Address",
                table: "Clinics",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<byte[]>(
                name: "Mark",
                table: "Clinics",
                type: "BLOB",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "DateOrder",
                table: "Clinics",
                type: "TEXT",
                nullable: false,
                defaultValue: "DayMonthYear");

            migrationBuilder.AddColumn<string>(
                name: "TimeZone",
                table: "Clinics",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "WeekStart",
                table: "Clinics",
                type: "TEXT",
                nullable: false,
                defaultValue: "Monday");

            // What was planned by the clock on the wall becomes an instant, in the zone that the clinic keeps from here on.
            migrationBuilder.Sql(
                $"""
                INSERT INTO "Clinics" ("Id", "Name", "Contact", "Version")
                SELECT 1, '', '', 0 WHERE NOT EXISTS (SELECT 1 FROM "Clinics");
                UPDATE "Clinics" SET "TimeZone" = {ZoneOfOldTimes.Name}();
                UPDATE "Visits" SET "PlannedAt" = {ZoneOfOldTimes.Utc}("PlannedAt");
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Address",
                table: "Clinics");

            migrationBuilder.DropColumn(
                name: "Mark",
                table: "Clinics");

            migrationBuilder.DropColumn(
                name: "DateOrder",
                table: "Clinics");

            migrationBuilder.DropColumn(
                name: "TimeZone",
                table: "Clinics");

            migrationBuilder.DropColumn(
                name: "WeekStart",
                table: "Clinics");
        }
    }
}
