using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class PracticeRoom : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "OwnEye",
                table: "Clinics",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "PracticeTeams",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Items = table.Column<string>(type: "TEXT", nullable: false),
                    LibraryVersion = table.Column<string>(type: "TEXT", nullable: false),
                    MadeAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    MadeBy = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PracticeTeams", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "PracticeRuns",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    AccountId = table.Column<Guid>(type: "TEXT", nullable: false),
                    TeamId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Seed = table.Column<int>(type: "INTEGER", nullable: false),
                    Aim = table.Column<string>(type: "TEXT", nullable: false),
                    StartedAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    EndedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    Shared = table.Column<bool>(type: "INTEGER", nullable: false),
                    NextSeed = table.Column<int>(type: "INTEGER", nullable: true),
                    NextMirrored = table.Column<bool>(type: "INTEGER", nullable: false),
                    NextWhy = table.Column<string>(type: "TEXT", nullable: true),
                    Place = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PracticeRuns", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PracticeRuns_AspNetUsers_AccountId",
                        column: x => x.AccountId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_PracticeRuns_PracticeTeams_TeamId",
                        column: x => x.TeamId,
                        principalTable: "PracticeTeams",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "PracticeAnswers",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    RunId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Place = table.Column<int>(type: "INTEGER", nullable: false),
                    Marks = table.Column<string>(type: "TEXT", nullable: false),
                    Result = table.Column<string>(type: "TEXT", nullable: false),
                    Why = table.Column<string>(type: "TEXT", nullable: true),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PracticeAnswers", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PracticeAnswers_PracticeRuns_RunId",
                        column: x => x.RunId,
                        principalTable: "PracticeRuns",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_PracticeAnswers_RunId_Place",
                table: "PracticeAnswers",
                columns: new[] { "RunId", "Place" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PracticeRuns_AccountId",
                table: "PracticeRuns",
                column: "AccountId");

            migrationBuilder.CreateIndex(
                name: "IX_PracticeRuns_TeamId_AccountId",
                table: "PracticeRuns",
                columns: new[] { "TeamId", "AccountId" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "PracticeAnswers");

            migrationBuilder.DropTable(
                name: "PracticeRuns");

            migrationBuilder.DropTable(
                name: "PracticeTeams");

            migrationBuilder.DropColumn(
                name: "OwnEye",
                table: "Clinics");
        }
    }
}
