using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Water;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;

namespace RuddySpring.Server.Household;

/// <summary>Where the bench stands and how it likes its numbers.</summary>
public sealed record HouseholdView(
    string Name, double AltitudeMetres, double AmbientC, bool MadeUp, string PressureUnit, string TemperatureUnit, string ForceUnit,
    double BoilingPointC, double AtmosphereBar);

/// <summary>What can be changed.</summary>
public sealed record HouseholdChange(
    string Name, double AltitudeMetres, double AmbientC, string PressureUnit, string TemperatureUnit, string ForceUnit);

/// <summary>A boiling point read off a thermometer, degC; it tells the height above the sea.</summary>
public sealed record BoilingPoint(double BoilingC);

public static class HouseholdEndpoints
{
    // what water boils at between 6000 m and 430 m below the sea
    private static readonly FieldRange Boiling = new("boilingC", "Boiling point", 80.5, 101.4, "degC");
    private static readonly FieldRange Ambient = new("ambientC", "Room temperature", -10, 45, "degC");

    public static void MapHousehold(this IEndpointRouteBuilder api)
    {
        api.MapGet("/household", async (RuddyContext db) => View(await db.Households.AsNoTracking().SingleAsync()));
        api.MapPost("/household/altitude", async (BoilingPoint measured, RuddyContext db) =>
        {
            var row = await db.Households.SingleAsync();
            row.AltitudeMetres = Math.Round(Atmosphere.AltitudeMetres(Saturation.PressureBar(Boiling.Check(measured.BoilingC))));
            await db.SaveChangesAsync();
            return View(row);
        });
        api.MapPut("/household", async (HouseholdChange change, RuddyContext db) =>
        {
            var row = await db.Households.SingleAsync();
            row.Name = Texts.Required(change.Name, "name", "Name");
            row.AltitudeMetres = Atmosphere.Altitude.Check(change.AltitudeMetres);
            row.AmbientC = Ambient.Check(change.AmbientC);
            row.PressureUnit = OneOf(change.PressureUnit, "pressureUnit", "bar", "psi", "kPa");
            row.TemperatureUnit = OneOf(change.TemperatureUnit, "temperatureUnit", "degC", "degF");
            row.ForceUnit = OneOf(change.ForceUnit, "forceUnit", "kgf", "N");
            await db.SaveChangesAsync();
            return View(row);
        });
    }

    private static HouseholdView View(Store.Entities.Household row) => new(
        row.Name, row.AltitudeMetres, row.AmbientC, row.MadeUp, row.PressureUnit, row.TemperatureUnit, row.ForceUnit,
        Saturation.BoilingPointC(row.AltitudeMetres), Atmosphere.PressureBar(row.AltitudeMetres));

    private static string OneOf(string value, string field, params string[] allowed) => allowed.Contains(value)
        ? value
        : throw new DoesNotFitException(field, $"{field} must be one of {string.Join(", ", allowed)}.");
}
