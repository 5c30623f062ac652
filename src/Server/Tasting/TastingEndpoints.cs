using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Reasoning;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Reasoning;
using RuddySpring.Store;

namespace RuddySpring.Server.Tasting;

/// <summary>How a shot tasted; null where nothing was said.</summary>
/// <param name="Seen">What was tapped of stream and puck; null where nobody looked, empty where there was nothing to see.</param>
/// <param name="StrengthPercent">Strength of the cup by refractometer, %; null without one.</param>
/// <param name="Before">What had been done before the pull, as somebody said afterwards; null where nobody said.</param>
public sealed record TasteView(
    int? Sour,
    int? Bitter,
    int? Dry,
    int? Sweet,
    int? Body,
    int? Liking,
    string Words,
    IReadOnlyList<Seen>? Seen = null,
    double? StrengthPercent = null,
    TickedBefore? Before = null
);

/// <summary>A taste that was kept.</summary>
/// <param name="Version">Version of the shot that it made.</param>
public sealed record KeptTaste(int Version, TasteView Taste);

public static class TastingEndpoints
{
    private const int MostSeen = 20;

    public static void MapTasting(this IEndpointRouteBuilder api)
    {
        api.MapPut(
            "/shots/{id:int}/taste",
            async (int id, TasteView taste, int version, RuddyContext db, CancellationToken cancel) =>
            {
                var shot = await db.Shots.SingleOrDefaultAsync(s => s.Id == id && s.DeletedAt == null, cancel)
                    ?? throw new NotThereException($"There is no shot {id}.");
                ChangedMeanwhileException.ThrowIfOlder(shot, version, "The shot");
                shot.Taste.Sour = Scale(taste.Sour, "sour", "Sour");
                shot.Taste.Bitter = Scale(taste.Bitter, "bitter", "Bitter");
                shot.Taste.Dry = Scale(taste.Dry, "dry", "Dry");
                shot.Taste.Sweet = Scale(taste.Sweet, "sweet", "Sweet");
                shot.Taste.Body = Scale(taste.Body, "body", "Body");
                shot.Liking = taste.Liking is { } liking ? (int)TasteMarks.HowLiked.Check(liking) : null;
                if (taste.Seen is { Count: > MostSeen })
                    throw new DoesNotFitException("seen", $"At most {MostSeen} things can have been seen.");
                shot.Tapped = taste.Seen?.Distinct().Order().ToList();
                shot.Strength = taste.StrengthPercent is { } percent
                    ? MeasuredExtraction.StrengthPercent.Check(percent) / 100
                    : null;
                shot.Before = taste.Before == new TickedBefore() ? null : taste.Before;
                shot.Taste.Words = Texts.Lines(taste.Words, "words", "Words", 500);
                await db.SaveChangesAsync(cancel);
                await AdviceJudge.JudgeAsync(db, id, cancel);
                return new KeptTaste(shot.Version, View(shot));
            }
        );
    }

    /// <summary>The contract's form of a taste.</summary>
    public static TasteView View(Store.Entities.Shot shot) =>
        View(shot.Taste, shot.Liking, shot.Tapped, shot.Strength, shot.Before);

    /// <summary>The same of its parts, for who reads no whole shot.</summary>
    public static TasteView View(
        Store.Entities.Taste taste,
        int? liking,
        IReadOnlyList<Seen>? tapped,
        double? strength,
        TickedBefore? before
    ) =>
        new(
            taste.Sour,
            taste.Bitter,
            taste.Dry,
            taste.Sweet,
            taste.Body,
            liking,
            taste.Words,
            tapped,
            strength is { } share ? Math.Round(share * 100, 2) : null,
            before
        );

    private static int? Scale(int? value, string field, string label) =>
        value is { } given ? (int)(TasteMarks.Mark with { Field = field, Label = label }).Check(given) : null;
}
