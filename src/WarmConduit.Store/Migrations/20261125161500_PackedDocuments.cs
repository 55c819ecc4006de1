using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace WarmConduit.Store.Migrations
{
    /// <inheritdoc />
    public partial class PackedDocuments : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Marks",
                columns: table => new
                {
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table => table.PrimaryKey("PK_Marks", x => x.Name));

            migrationBuilder.AddColumn<long>(name: "RemovedAt", table: "Rigs", type: "INTEGER", nullable: true);
            migrationBuilder.AddColumn<byte[]>(name: "Content", table: "Revisions", type: "BLOB", nullable: false, defaultValueSql: "X''");
            migrationBuilder.AddColumn<int>(name: "Packing", table: "Revisions", type: "INTEGER", nullable: false, defaultValue: 0);

            // Documents stay as they were written: reading upgrades them.
            migrationBuilder.Sql("UPDATE \"Revisions\" SET \"Content\" = CAST(\"Document\" AS BLOB);");
            migrationBuilder.Sql("ALTER TABLE \"Revisions\" DROP COLUMN \"Document\";");

            // A shelf that has been in use had its demo laid out.
            migrationBuilder.Sql("INSERT INTO \"Marks\" (\"Name\", \"At\") SELECT 'demo', MIN(\"AddedAt\") FROM \"Rigs\" HAVING COUNT(*) > 0;");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(name: "Document", table: "Revisions", type: "TEXT", nullable: false, defaultValue: "");
            migrationBuilder.Sql("UPDATE \"Revisions\" SET \"Document\" = CAST(\"Content\" AS TEXT) WHERE \"Packing\" = 0;");
            migrationBuilder.DropColumn(name: "Content", table: "Revisions");
            migrationBuilder.DropColumn(name: "Packing", table: "Revisions");
            migrationBuilder.DropColumn(name: "RemovedAt", table: "Rigs");
            migrationBuilder.DropTable(name: "Marks");
        }
    }
}
