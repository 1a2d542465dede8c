using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Palaestra.Data.Migrations
{
    /// <inheritdoc />
    public partial class StandingContent : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "LibraryVersion",
                table: "Standings",
                type: "TEXT",
                nullable: false,
                defaultValue: "");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "LibraryVersion",
                table: "Standings");
        }
    }
}
