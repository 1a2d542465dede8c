using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class Audit : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Audit",
                columns: table => new
                {
                    Number = table.Column<long>(type: "INTEGER", nullable: false),
                    Chain = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    AccountId = table.Column<Guid>(type: "TEXT", nullable: true),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Person = table.Column<Guid>(type: "TEXT", nullable: true),
                    Episode = table.Column<Guid>(type: "TEXT", nullable: true),
                    Visit = table.Column<Guid>(type: "TEXT", nullable: true),
                    Payload = table.Column<string>(type: "TEXT", nullable: true),
                    Salt = table.Column<string>(type: "TEXT", nullable: true),
                    PayloadHash = table.Column<string>(type: "TEXT", nullable: false),
                    Previous = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Audit", x => x.Number);
                });

            migrationBuilder.CreateTable(
                name: "AuditNotes",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    AccountId = table.Column<Guid>(type: "TEXT", nullable: true),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Person = table.Column<Guid>(type: "TEXT", nullable: true),
                    Episode = table.Column<Guid>(type: "TEXT", nullable: true),
                    Visit = table.Column<Guid>(type: "TEXT", nullable: true),
                    Payload = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AuditNotes", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Audit_AccountId_Number",
                table: "Audit",
                columns: new[] { "AccountId", "Number" });

            migrationBuilder.CreateIndex(
                name: "IX_Audit_Episode_Number",
                table: "Audit",
                columns: new[] { "Episode", "Number" });

            // Appended only; what a client is told to have been can be taken, and nothing else.
            migrationBuilder.Sql(
                """
                CREATE TRIGGER AuditStays BEFORE DELETE ON Audit BEGIN SELECT RAISE(ABORT, 'The audit is appended to only.'); END
                """
            );
            migrationBuilder.Sql(
                """
                CREATE TRIGGER AuditIsNotChanged BEFORE UPDATE ON Audit
                WHEN new.Payload IS NOT NULL OR new.Salt IS NOT NULL OR new.Person IS NOT NULL OR new.Episode IS NOT NULL
                    OR new.Visit IS NOT NULL OR new.AccountId IS NOT old.AccountId OR new.Number <> old.Number OR new.Hash <> old.Hash
                    OR new.Previous <> old.Previous OR new.PayloadHash <> old.PayloadHash OR new.At <> old.At
                    OR new.Kind <> old.Kind OR new.What <> old.What OR new."By" <> old."By"
                BEGIN SELECT RAISE(ABORT, 'The audit is appended to only.'); END
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Audit");

            migrationBuilder.DropTable(
                name: "AuditNotes");
        }
    }
}
