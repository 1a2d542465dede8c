using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class DrillEnds : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "End",
                table: "PracticeRuns",
                type: "TEXT",
                nullable: true);

            // 0.28 told an end by the clock where it was asked. Only this one can be told for certain afterwards.
            migrationBuilder.Sql(
                """
                UPDATE "PracticeRuns" SET "End" = 'AllShown'
                WHERE "TeamId" IS NULL AND "EndedAt" IS NOT NULL AND "Place" >= json_extract("Aim", '$.clips')
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "End",
                table: "PracticeRuns");
        }
    }
}
