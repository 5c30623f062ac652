using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange.Logbooks;

/// <summary>Writes shots as CSV (RFC 4180), a row each, newest first; what a spreadsheet would take for a formula is made
/// harmless.</summary>
public static class LogbookWriter
{
    private const int AtOnce = 500;

    /// <summary>Writes the shots that a query gives.</summary>
    public static async Task WriteAsync(IQueryable<Shot> shots, Stream to, CancellationToken cancel)
    {
        await using var text = new StreamWriter(to, new UTF8Encoding(false), leaveOpen: true) { NewLine = "\r\n" };
        await using var csv = new CsvWriter(text, new CsvConfiguration(CultureInfo.InvariantCulture) { NewLine = "\r\n" });
        foreach (var (_, name) in LogbookColumns.Written)
            csv.WriteField(name);
        await csv.NextRecordAsync();
        var ordered = shots
            .OrderByDescending(s => s.PulledAt)
            .ThenByDescending(s => s.Id)
            .Include(s => s.Brewer)
            .Include(s => s.Machine)
            .Include(s => s.Bag)
            .Include(s => s.Grinder)
            .Include(s => s.Basket);
        for (var page = 0; ; page++)
        {
            var some = await ordered.Skip(page * AtOnce).Take(AtOnce).ToListAsync(cancel);
            foreach (var shot in some)
            {
                foreach (var (role, _) in LogbookColumns.Written)
                    csv.WriteField(Cell(shot, role));
                await csv.NextRecordAsync();
            }

            await csv.FlushAsync();
            if (some.Count < AtOnce)
                return;
        }
    }

    private static string Cell(Shot s, LogbookRole role) =>
        role switch
        {
            LogbookRole.PulledAt => s.PulledAt.ToString("yyyy-MM-dd'T'HH:mm:ss.FFFFFFF'Z'", CultureInfo.InvariantCulture),
            LogbookRole.Brewer => LogbookText.Written(s.Brewer?.Name ?? ""),
            LogbookRole.Machine => LogbookText.Written(s.Machine?.Name ?? ""),
            LogbookRole.Coffee => LogbookText.Written(s.Bag?.Name ?? ""),
            LogbookRole.Roaster => LogbookText.Written(s.Bag?.Roaster ?? ""),
            LogbookRole.RoastedOn => s.Bag?.RoastedOn.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "",
            LogbookRole.Grinder => LogbookText.Written(s.Grinder?.Name ?? ""),
            LogbookRole.Basket => LogbookText.Written(s.Basket?.Name ?? ""),
            LogbookRole.Plan => LogbookText.Written(s.PlanName),
            LogbookRole.Words => LogbookText.Written(s.Taste.Words),
            LogbookRole.Seen => LogbookText.Written(s.Seen),
            _ => Number(s, role) is { } number ? number.ToString("0.####", CultureInfo.InvariantCulture) : "",
        };

    private static double? Number(Shot s, LogbookRole role) =>
        role switch
        {
            LogbookRole.Grind => s.GrindSetting,
            LogbookRole.Dose => s.DoseGrams,
            LogbookRole.TargetYield => s.YieldGrams,
            LogbookRole.Cup => s.Measures.CupGrams,
            LogbookRole.SecondsFromLever => s.Measures.SecondsFromLever,
            LogbookRole.SecondsFromPressure => s.Measures.SecondsFromPressure,
            LogbookRole.SecondsFromDrops => s.Measures.SecondsFromDrops,
            LogbookRole.SecondsToDrops => s.Measures.SecondsToDrops,
            LogbookRole.Peak => s.Measures.PeakBar,
            LogbookRole.MeanPressure => s.Measures.MeanBar,
            LogbookRole.MeanFlow => s.Measures.MeanFlowGramsPerS,
            LogbookRole.R10 => s.Measures.R10,
            LogbookRole.Water => s.WaterC,
            LogbookRole.Group => s.GroupC,
            LogbookRole.Sour => s.Taste.Sour,
            LogbookRole.Bitter => s.Taste.Bitter,
            LogbookRole.Dry => s.Taste.Dry,
            LogbookRole.Sweet => s.Taste.Sweet,
            LogbookRole.Body => s.Taste.Body,
            LogbookRole.Liking => s.Liking,
            LogbookRole.Strength => s.Strength * 100,
            _ => null,
        };
}
