using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace RuddySpring.Store.Migrations
{
    /// <inheritdoc />
    public partial class Shelf : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Rest",
                table: "Households",
                type: "TEXT",
                nullable: false,
                defaultValue: "{\"usableFrom\":4,\"bestFrom\":7,\"bestTo\":21,\"cremaTo\":42}");

            migrationBuilder.AddColumn<double>(
                name: "PurgeGrams",
                table: "Grinders",
                type: "REAL",
                nullable: false,
                defaultValue: 0.0);

            migrationBuilder.AddColumn<double>(
                name: "RetentionGrams",
                table: "Grinders",
                type: "REAL",
                nullable: false,
                defaultValue: 0.0);

            migrationBuilder.AddColumn<double>(
                name: "ZeroPoint",
                table: "Grinders",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<DateOnly>(
                name: "FrozenOn",
                table: "Bags",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "GramsLeft",
                table: "Bags",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<DateOnly>(
                name: "OpenedOn",
                table: "Bags",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Process",
                table: "Bags",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<DateOnly>(
                name: "ThawedOn",
                table: "Bags",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Rest",
                table: "Households");

            migrationBuilder.DropColumn(
                name: "PurgeGrams",
                table: "Grinders");

            migrationBuilder.DropColumn(
                name: "RetentionGrams",
                table: "Grinders");

            migrationBuilder.DropColumn(
                name: "ZeroPoint",
                table: "Grinders");

            migrationBuilder.DropColumn(
                name: "FrozenOn",
                table: "Bags");

            migrationBuilder.DropColumn(
                name: "GramsLeft",
                table: "Bags");

            migrationBuilder.DropColumn(
                name: "OpenedOn",
                table: "Bags");

            migrationBuilder.DropColumn(
                name: "Process",
                table: "Bags");

            migrationBuilder.DropColumn(
                name: "ThawedOn",
                table: "Bags");
        }
    }
}
