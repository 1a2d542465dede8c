using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class ReadingAndHomeAddresses : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "HomeKey",
                table: "Episodes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "HomeAddresses",
                table: "Clinics",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Units",
                table: "Clinics",
                type: "TEXT",
                nullable: false,
                defaultValue: "KgCm");

            migrationBuilder.AddColumn<string>(
                name: "DateOrder",
                table: "AspNetUsers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Units",
                table: "AspNetUsers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "WeekStart",
                table: "AspNetUsers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Episodes_HomeKey",
                table: "Episodes",
                column: "HomeKey",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Episodes_HomeKey",
                table: "Episodes");

            migrationBuilder.DropColumn(
                name: "HomeKey",
                table: "Episodes");

            migrationBuilder.DropColumn(
                name: "HomeAddresses",
                table: "Clinics");

            migrationBuilder.DropColumn(
                name: "Units",
                table: "Clinics");

            migrationBuilder.DropColumn(
                name: "DateOrder",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "Units",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "WeekStart",
                table: "AspNetUsers");
        }
    }
}
