using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Water;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Network;
using RuddySpring.Store;

namespace RuddySpring.Server.Household;

/// <summary>Where the bench stands and how it likes its numbers.</summary>
/// <param name="School">Key of the school that its shots are judged by.</param>
/// <param name="TasteWords">The words that it tastes with.</param>
/// <param name="Home">Of a sample household that is looked at: the address of the household to come back to.</param>
public sealed record HouseholdView(
    int Version,
    string Name,
    double AltitudeMetres,
    double AmbientC,
    bool MadeUp,
    string PressureUnit,
    string TemperatureUnit,
    string ForceUnit,
    double BoilingPointC,
    double AtmosphereBar,
    string? Home,
    string School,
    IReadOnlyList<string> TasteWords
);

/// <summary>What can be changed.</summary>
/// <param name="School">Key of a school; null leaves it.</param>
/// <param name="TasteWords">Words to taste with; null leaves them.</param>
public sealed record HouseholdChange(
    string Name,
    double AltitudeMetres,
    double AmbientC,
    string PressureUnit,
    string TemperatureUnit,
    string ForceUnit,
    string? School = null,
    IReadOnlyList<string>? TasteWords = null
);

/// <summary>A boiling point read off a thermometer, degC; it tells the height above the sea.</summary>
public sealed record BoilingPoint(double BoilingC);

public static class HouseholdEndpoints
{
    // what water boils at between 6000 m and 430 m below the sea
    private static readonly FieldRange Boiling = new("boilingC", "Boiling point", 80.5, 101.4, "degC");

    public static void MapHousehold(this IEndpointRouteBuilder api)
    {
        api.MapGet("/household", CurrentAsync);
        api.MapPost("/sample/open", async (SampleBench sample, HttpRequest request, CancellationToken cancel) =>
                await sample.OpenAsync($"{request.Scheme}://{request.Host}", cancel)
            )
            .AtTheMachineOnly();
        api.MapPost("/sample/close", async (SampleBench sample) => await sample.CloseAsync()).AtTheMachineOnly();
        api.MapPost(
            "/household/altitude",
            async (BoilingPoint measured, RuddyContext db, ServerOptions options, CancellationToken cancel) =>
            {
                var row = await db.Households.SingleAsync(cancel);
                row.AltitudeMetres = Math.Round(
                    Atmosphere.AltitudeMetres(Saturation.PressureBar(Boiling.Check(measured.BoilingC)))
                );
                await db.SaveChangesAsync(cancel);
                return View(row, options);
            }
        );
        api.MapPut(
            "/household",
            async (HouseholdChange change, int version, RuddyContext db, ServerOptions options, CancellationToken cancel) =>
            {
                var row = await db.Households.SingleAsync(cancel);
                ChangedMeanwhileException.ThrowIfOlder(row, version, "The household");
                row.Name = Texts.Required(change.Name, "name", "Name");
                row.AltitudeMetres = Atmosphere.Altitude.Check(change.AltitudeMetres);
                row.AmbientC = HeatRanges.Ambient.Check(change.AmbientC);
                DisplayUnits.Check(change.PressureUnit, change.TemperatureUnit, change.ForceUnit);
                row.PressureUnit = change.PressureUnit;
                row.TemperatureUnit = change.TemperatureUnit;
                row.ForceUnit = change.ForceUnit;
                row.School = KnownSchool(change.School) ?? row.School;
                if (change.TasteWords is { } words)
                    row.TasteWords = TasteWords.Checked(words);
                await db.SaveChangesAsync(cancel);
                return View(row, options);
            }
        );
    }

    /// <summary>The household as it stands.</summary>
    public static async Task<HouseholdView> CurrentAsync(RuddyContext db, ServerOptions options, CancellationToken cancel) =>
        View(await db.Households.AsNoTracking().SingleAsync(cancel), options);

    private static HouseholdView View(Store.Entities.Household row, ServerOptions options) =>
        new(
            row.Version,
            row.Name,
            row.AltitudeMetres,
            row.AmbientC,
            row.MadeUp,
            row.PressureUnit,
            row.TemperatureUnit,
            row.ForceUnit,
            Saturation.BoilingPointC(row.AltitudeMetres),
            Atmosphere.PressureBar(row.AltitudeMetres),
            options.Home,
            row.School,
            row.TasteWords
        );

    /// <summary>The key of a school, or null.</summary>
    /// <exception cref="DoesNotFitException">There is no such school.</exception>
    public static string? KnownSchool(string? key) =>
        key is null || SchoolList.All.Any(s => s.Key == key)
            ? key
            : throw new DoesNotFitException(
                "school",
                $"school must be one of {string.Join(", ", SchoolList.All.Select(s => s.Key))}."
            );
}
