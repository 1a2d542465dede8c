using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class Progression : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Answers",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "AnswersVersion",
                table: "Visits",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Proposed",
                table: "Decisions",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "RuleId",
                table: "Decisions",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Taken",
                table: "Decisions",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "DecidedVisits",
                columns: table => new
                {
                    VisitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Input = table.Column<string>(type: "TEXT", nullable: false),
                    PlanRevisionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    PolicyVersion = table.Column<int>(type: "INTEGER", nullable: false),
                    LibraryVersion = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DecidedVisits", x => x.VisitId);
                    table.ForeignKey(
                        name: "FK_DecidedVisits_Visits_VisitId",
                        column: x => x.VisitId,
                        principalTable: "Visits",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "HomeLog",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    EpisodeId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Log = table.Column<string>(type: "TEXT", nullable: false),
                    WrittenAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    WrittenBy = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_HomeLog", x => x.Id);
                    table.ForeignKey(
                        name: "FK_HomeLog_Episodes_EpisodeId",
                        column: x => x.EpisodeId,
                        principalTable: "Episodes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Letters",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    VisitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Letter = table.Column<string>(type: "TEXT", nullable: false),
                    WrittenAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    WrittenBy = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Letters", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Letters_Visits_VisitId",
                        column: x => x.VisitId,
                        principalTable: "Visits",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Standings",
                columns: table => new
                {
                    EpisodeId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Stale = table.Column<bool>(type: "INTEGER", nullable: false),
                    Closed = table.Column<bool>(type: "INTEGER", nullable: false),
                    PainFirst = table.Column<int>(type: "INTEGER", nullable: true),
                    PainLast = table.Column<int>(type: "INTEGER", nullable: true),
                    RungId = table.Column<string>(type: "TEXT", nullable: true),
                    LatestVisitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LatestOn = table.Column<DateOnly>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Standings", x => x.EpisodeId);
                    table.ForeignKey(
                        name: "FK_Standings_Episodes_EpisodeId",
                        column: x => x.EpisodeId,
                        principalTable: "Episodes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Pile",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    EpisodeId = table.Column<Guid>(type: "TEXT", nullable: false),
                    VisitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Kind = table.Column<int>(type: "INTEGER", nullable: false),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    CountFrom = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    Step = table.Column<string>(type: "TEXT", nullable: false),
                    Station = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Pile", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Pile_Standings_EpisodeId",
                        column: x => x.EpisodeId,
                        principalTable: "Standings",
                        principalColumn: "EpisodeId",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "StandingVisits",
                columns: table => new
                {
                    VisitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EpisodeId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Says = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_StandingVisits", x => x.VisitId);
                    table.ForeignKey(
                        name: "FK_StandingVisits_Standings_EpisodeId",
                        column: x => x.EpisodeId,
                        principalTable: "Standings",
                        principalColumn: "EpisodeId",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Decisions_RuleId_Overridden",
                table: "Decisions",
                columns: new[] { "RuleId", "Overridden" });

            migrationBuilder.CreateIndex(
                name: "IX_HomeLog_EpisodeId_Day",
                table: "HomeLog",
                columns: new[] { "EpisodeId", "Day" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Letters_VisitId",
                table: "Letters",
                column: "VisitId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Pile_EpisodeId",
                table: "Pile",
                column: "EpisodeId");

            migrationBuilder.CreateIndex(
                name: "IX_Pile_Kind_From",
                table: "Pile",
                columns: new[] { "Kind", "From" });

            migrationBuilder.CreateIndex(
                name: "IX_StandingVisits_EpisodeId",
                table: "StandingVisits",
                column: "EpisodeId");

            migrationBuilder.CreateIndex(
                name: "IX_Standings_LatestOn",
                table: "Standings",
                column: "LatestOn");

            migrationBuilder.CreateIndex(
                name: "IX_Standings_Stale",
                table: "Standings",
                column: "Stale");

            migrationBuilder.Sql(
                """
                UPDATE Decisions SET
                    RuleId = json_extract(Proposal, '$.ruleId'),
                    Proposed = CASE json_extract(Proposal, '$.outcome')
                        WHEN 'step-up' THEN 'StepUp' WHEN 'step-down' THEN 'StepDown' WHEN 'add' THEN 'Add'
                        WHEN 'ease' THEN 'Ease' WHEN 'stop' THEN 'Stop' ELSE 'Stay' END,
                    Taken = CASE json_extract(Chosen, '$.outcome')
                        WHEN 'step-up' THEN 'StepUp' WHEN 'step-down' THEN 'StepDown' WHEN 'add' THEN 'Add'
                        WHEN 'ease' THEN 'Ease' WHEN 'stop' THEN 'Stop' ELSE 'Stay' END;
                """
            );
            migrationBuilder.Sql(
                "INSERT INTO Standings (EpisodeId, Stale, Closed, LatestVisitId, LatestOn) SELECT Id, 1, 0, '00000000-0000-0000-0000-000000000000', '0001-01-01' FROM Episodes;"
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "DecidedVisits");

            migrationBuilder.DropTable(
                name: "HomeLog");

            migrationBuilder.DropTable(
                name: "Letters");

            migrationBuilder.DropTable(
                name: "Pile");

            migrationBuilder.DropTable(
                name: "StandingVisits");

            migrationBuilder.DropTable(
                name: "Standings");

            migrationBuilder.DropIndex(
                name: "IX_Decisions_RuleId_Overridden",
                table: "Decisions");

            migrationBuilder.DropColumn(
                name: "Answers",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "AnswersVersion",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "Proposed",
                table: "Decisions");

            migrationBuilder.DropColumn(
                name: "RuleId",
                table: "Decisions");

            migrationBuilder.DropColumn(
                name: "Taken",
                table: "Decisions");
        }
    }
}
