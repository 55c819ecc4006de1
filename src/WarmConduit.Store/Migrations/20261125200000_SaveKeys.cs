using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace WarmConduit.Store.Migrations
{
    /// <inheritdoc />
    public partial class SaveKeys : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(name: "Key", table: "Revisions", type: "TEXT", nullable: true);
            migrationBuilder.CreateIndex(name: "IX_Revisions_RigId_Key", table: "Revisions", columns: ["RigId", "Key"], unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(name: "IX_Revisions_RigId_Key", table: "Revisions");
            migrationBuilder.DropColumn(name: "Key", table: "Revisions");
        }
    }
}
