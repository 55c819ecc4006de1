using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace WarmConduit.Store.Migrations
{
    /// <inheritdoc />
    public partial class Pictures : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder) => migrationBuilder.CreateTable(
            name: "Pictures",
            columns: table => new
            {
                Hash = table.Column<string>(type: "TEXT", nullable: false),
                Content = table.Column<byte[]>(type: "BLOB", nullable: false),
                AddedAt = table.Column<long>(type: "INTEGER", nullable: false),
            },
            constraints: table => table.PrimaryKey("PK_Pictures", x => x.Hash));

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => migrationBuilder.DropTable(name: "Pictures");
    }
}
