using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class HomeProgrammes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "ReportedCount",
                table: "HomeLog",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "ReportedRevision",
                table: "HomeLog",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<byte[]>(
                name: "HomeSecret",
                table: "Clinics",
                type: "BLOB",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "ReportedCount",
                table: "HomeLog");

            migrationBuilder.DropColumn(
                name: "ReportedRevision",
                table: "HomeLog");

            migrationBuilder.DropColumn(
                name: "HomeSecret",
                table: "Clinics");
        }
    }
}
