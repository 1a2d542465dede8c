using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class RecordedSessions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "PracticeConsent",
                table: "Episodes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "RecordedSessions",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    MadeAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    MadeBy = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RecordedSessions", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "RecordedItems",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    SessionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    SourceId = table.Column<Guid>(type: "TEXT", nullable: false),
                    VisitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    RungId = table.Column<string>(type: "TEXT", nullable: false),
                    Place = table.Column<int>(type: "INTEGER", nullable: false),
                    Thing = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RecordedItems", x => x.Id);
                    table.ForeignKey(
                        name: "FK_RecordedItems_RecordedSessions_SessionId",
                        column: x => x.SessionId,
                        principalTable: "RecordedSessions",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_RecordedItems_Visits_VisitId",
                        column: x => x.VisitId,
                        principalTable: "Visits",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "RecordedRatings",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ItemId = table.Column<Guid>(type: "TEXT", nullable: false),
                    VisitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    AccountId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Reading = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RecordedRatings", x => x.Id);
                    table.ForeignKey(
                        name: "FK_RecordedRatings_AspNetUsers_AccountId",
                        column: x => x.AccountId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_RecordedRatings_RecordedItems_ItemId",
                        column: x => x.ItemId,
                        principalTable: "RecordedItems",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_RecordedItems_SessionId_Place",
                table: "RecordedItems",
                columns: new[] { "SessionId", "Place" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_RecordedItems_VisitId",
                table: "RecordedItems",
                column: "VisitId");

            migrationBuilder.CreateIndex(
                name: "IX_RecordedRatings_AccountId",
                table: "RecordedRatings",
                column: "AccountId");

            migrationBuilder.CreateIndex(
                name: "IX_RecordedRatings_ItemId_AccountId",
                table: "RecordedRatings",
                columns: new[] { "ItemId", "AccountId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_RecordedRatings_VisitId",
                table: "RecordedRatings",
                column: "VisitId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "RecordedRatings");

            migrationBuilder.DropTable(
                name: "RecordedItems");

            migrationBuilder.DropTable(
                name: "RecordedSessions");

            migrationBuilder.DropColumn(
                name: "PracticeConsent",
                table: "Episodes");
        }
    }
}
