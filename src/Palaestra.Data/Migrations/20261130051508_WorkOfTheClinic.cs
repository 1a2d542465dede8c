using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class WorkOfTheClinic : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "CalledOff",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateTime>(
                name: "CalledOffAt",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "CalledOffBy",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "CalledOffReason",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateTime>(
                name: "FromPaperAt",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "FromPaperBy",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Minutes",
                table: "Visits",
                type: "INTEGER",
                nullable: false,
                defaultValue: 30);

            migrationBuilder.AddColumn<Guid>(
                name: "SeriesId",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "WithId",
                table: "Visits",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "DisabilityFirst",
                table: "Standings",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "DisabilityLast",
                table: "Standings",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "DisabilityMeasure",
                table: "Standings",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "HomeDone",
                table: "Standings",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "HomePlanned",
                table: "Standings",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "VisitsDone",
                table: "Standings",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<bool>(
                name: "Asked",
                table: "Episodes",
                type: "INTEGER",
                nullable: false,
                defaultValue: true);

            migrationBuilder.AddColumn<DateOnly>(
                name: "DischargedOn",
                table: "Episodes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "RetentionYears",
                table: "Clinics",
                type: "INTEGER",
                nullable: false,
                defaultValue: 10);

            migrationBuilder.AddColumn<string>(
                name: "Address",
                table: "Clients",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateTime>(
                name: "ArchivedAt",
                table: "Clients",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "DeskNotes",
                table: "Clients",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Email",
                table: "Clients",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Guardian",
                table: "Clients",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "InChargeId",
                table: "Clients",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "MergedIntoId",
                table: "Clients",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Number",
                table: "Clients",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Phone",
                table: "Clients",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "SearchText",
                table: "Clients",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "Version",
                table: "Clients",
                type: "INTEGER",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.CreateTable(
                name: "Charts",
                columns: table => new
                {
                    VisitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EpisodeId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Chart = table.Column<string>(type: "TEXT", nullable: false),
                    WrittenAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    WrittenBy = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Charts", x => x.VisitId);
                    table.ForeignKey(
                        name: "FK_Charts_Visits_VisitId",
                        column: x => x.VisitId,
                        principalTable: "Visits",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Discharges",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    EpisodeId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Summary = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    AccountId = table.Column<Guid>(type: "TEXT", nullable: true),
                    ReopenedOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    ReopenedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    ReopenedBy = table.Column<string>(type: "TEXT", nullable: true),
                    ReopenReason = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Discharges", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Discharges_Episodes_EpisodeId",
                        column: x => x.EpisodeId,
                        principalTable: "Episodes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "EpisodeMoves",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    EpisodeId = table.Column<Guid>(type: "TEXT", nullable: false),
                    FromClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ToClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    AccountId = table.Column<Guid>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_EpisodeMoves", x => x.Id);
                    table.ForeignKey(
                        name: "FK_EpisodeMoves_Clients_FromClientId",
                        column: x => x.FromClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_EpisodeMoves_Clients_ToClientId",
                        column: x => x.ToClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_EpisodeMoves_Episodes_EpisodeId",
                        column: x => x.EpisodeId,
                        principalTable: "Episodes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Notes",
                columns: table => new
                {
                    VisitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EpisodeId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    WrittenAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    WrittenBy = table.Column<string>(type: "TEXT", nullable: false),
                    SignedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    SignedBy = table.Column<string>(type: "TEXT", nullable: true),
                    SignedById = table.Column<Guid>(type: "TEXT", nullable: true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Notes", x => x.VisitId);
                    table.ForeignKey(
                        name: "FK_Notes_Visits_VisitId",
                        column: x => x.VisitId,
                        principalTable: "Visits",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Visits_SeriesId",
                table: "Visits",
                column: "SeriesId");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_MergedIntoId",
                table: "Clients",
                column: "MergedIntoId");

            // Clients of before get numbers in the order in which they came.
            migrationBuilder.Sql(
                """
                UPDATE "Clients" SET "Number" = CAST(1000 + "ranked"."Place" AS TEXT)
                FROM (SELECT "Id", ROW_NUMBER() OVER (ORDER BY "Id") AS "Place" FROM "Clients") AS "ranked"
                WHERE "Clients"."Id" = "ranked"."Id";
                """
            );

            // What is told of all episodes together is worked out once.
            migrationBuilder.Sql("""UPDATE "Standings" SET "Stale" = 1;""");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_Number",
                table: "Clients",
                column: "Number",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Charts_EpisodeId",
                table: "Charts",
                column: "EpisodeId");

            migrationBuilder.CreateIndex(
                name: "IX_Discharges_EpisodeId",
                table: "Discharges",
                column: "EpisodeId");

            migrationBuilder.CreateIndex(
                name: "IX_EpisodeMoves_EpisodeId",
                table: "EpisodeMoves",
                column: "EpisodeId");

            migrationBuilder.CreateIndex(
                name: "IX_EpisodeMoves_FromClientId",
                table: "EpisodeMoves",
                column: "FromClientId");

            migrationBuilder.CreateIndex(
                name: "IX_EpisodeMoves_ToClientId",
                table: "EpisodeMoves",
                column: "ToClientId");

            migrationBuilder.CreateIndex(
                name: "IX_Notes_EpisodeId",
                table: "Notes",
                column: "EpisodeId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Charts");

            migrationBuilder.DropTable(
                name: "Discharges");

            migrationBuilder.DropTable(
                name: "EpisodeMoves");

            migrationBuilder.DropTable(
                name: "Notes");

            migrationBuilder.DropIndex(
                name: "IX_Visits_SeriesId",
                table: "Visits");

            migrationBuilder.DropIndex(
                name: "IX_Clients_MergedIntoId",
                table: "Clients");

            migrationBuilder.DropIndex(
                name: "IX_Clients_Number",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "CalledOff",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "CalledOffAt",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "CalledOffBy",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "CalledOffReason",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "FromPaperAt",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "FromPaperBy",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "Minutes",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "SeriesId",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "WithId",
                table: "Visits");

            migrationBuilder.DropColumn(
                name: "DisabilityFirst",
                table: "Standings");

            migrationBuilder.DropColumn(
                name: "DisabilityLast",
                table: "Standings");

            migrationBuilder.DropColumn(
                name: "DisabilityMeasure",
                table: "Standings");

            migrationBuilder.DropColumn(
                name: "HomeDone",
                table: "Standings");

            migrationBuilder.DropColumn(
                name: "HomePlanned",
                table: "Standings");

            migrationBuilder.DropColumn(
                name: "VisitsDone",
                table: "Standings");

            migrationBuilder.DropColumn(
                name: "Asked",
                table: "Episodes");

            migrationBuilder.DropColumn(
                name: "DischargedOn",
                table: "Episodes");

            migrationBuilder.DropColumn(
                name: "RetentionYears",
                table: "Clinics");

            migrationBuilder.DropColumn(
                name: "Address",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "ArchivedAt",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "DeskNotes",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "Email",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "Guardian",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "InChargeId",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "MergedIntoId",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "Number",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "Phone",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "SearchText",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "Version",
                table: "Clients");
        }
    }
}
