using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class VisitAnswers : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Flags",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Intake",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ReferenceSet",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            // The first visit keeps what stands: from here on each visit's answers are its own.
            migrationBuilder.Sql(
                """
                UPDATE "Visits" SET "Intake" = (
                    SELECT json_object(
                        'complaint', e."Complaint",
                        'pain', json_object('now', e."PainNow", 'worst', max(e."PainWorst", e."PainNow", e."PainUsual"), 'usual', e."PainUsual"),
                        'settleHours', e."SettleHours",
                        'wakesAtNight', json(CASE WHEN e."WakesAtNight" THEN 'true' ELSE 'false' END),
                        'precautions', json(e."Precautions"),
                        'minutesPerDay', e."MinutesPerDay",
                        'policyId', e."PolicyId",
                        'goals', json(coalesce(e."Goals", '[]')),
                        'equipment', json(coalesce(e."Equipment", 'null')),
                        'daysPerWeek', e."DaysPerWeek")
                    FROM "Episodes" e WHERE e."Id" = "Visits"."EpisodeId")
                WHERE "Id" = (
                    SELECT v."Id" FROM "Visits" v WHERE v."EpisodeId" = "Visits"."EpisodeId"
                    ORDER BY v."PlannedAt", v."Id" LIMIT 1);
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Flags",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "Intake",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "ReferenceSet",
                table: "Visits");
        }
    }
}
