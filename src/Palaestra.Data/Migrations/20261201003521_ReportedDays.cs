using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class ReportedDays : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "Reported",
                table: "HomeLog",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.Sql("""UPDATE "HomeLog" SET "Reported" = 1 WHERE "ReportedCount" IS NOT NULL""");

            // As SQL: dropped by the generator, the table would be built anew outside the transaction.
            migrationBuilder.Sql("""ALTER TABLE "HomeLog" DROP COLUMN "ReportedCount" """);
            migrationBuilder.Sql("""ALTER TABLE "HomeLog" DROP COLUMN "ReportedRevision" """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
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

            migrationBuilder.DropColumn(
                name: "Reported",
                table: "HomeLog");
        }
    }
}
