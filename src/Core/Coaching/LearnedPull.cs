using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Coaching;

/// <summary>What one pull taught, kept with its shot.</summary>
/// <param name="Puck">Its puck, spout and scale; null where gauge or scale did not tell it.</param>
/// <param name="Scale">Name of the scale; null where none told.</param>
/// <param name="Holder">Which spout: machine, basket holder with or without a bottom.</param>
/// <param name="LetGoSeconds">How long the hand went on after the cue (<see cref="LetGo"/>), s; null where there was
/// none.</param>
public sealed record LearnedPull(PuckMemory? Puck, string? Scale, string Holder, double? LetGoSeconds);

/// <summary>A pull that taught something, with what it was pulled with.</summary>
/// <param name="BagId">0 where none is noted.</param>
/// <param name="MachineId">Its machine.</param>
/// <param name="BrewerId">0 where nobody is named.</param>
/// <param name="Learned">What it taught.</param>
public sealed record TaughtBy(int BagId, int MachineId, int BrewerId, LearnedPull Learned);

/// <summary>What earlier pulls make one expect of the next, by everything that is the same.</summary>
public static class Taught
{
    /// <summary>Which spout coffee leaves by.</summary>
    public static string Holder(int machineId, bool bottomless) => $"{machineId}{(bottomless ? " bottomless" : " spout")}";

    /// <summary>
    /// The puck of the same bag as it was last, or else of the same machine, behind the spout and the scale that will be used;
    /// null where no pull taught any.
    /// </summary>
    /// <param name="newestFirst">Earlier pulls.</param>
    /// <param name="next">What the next one is pulled with; its own lesson is not there yet.</param>
    /// <param name="sheet">The next shot.</param>
    public static PuckMemory? Puck(IReadOnlyList<TaughtBy> newestFirst, TaughtBy next, ShotConditions sheet)
    {
        var told = newestFirst.Where(t => t.Learned.Puck is not null).ToList();
        var like = told.Find(t => t.BagId == next.BagId && t.MachineId == next.MachineId)
            ?? told.Find(t => t.MachineId == next.MachineId);
        if (like?.Learned.Puck is not { } puck)
            return null;
        var (scale, holder) = (next.Learned.Scale, next.Learned.Holder);
        if (like.Learned.Scale == scale && like.Learned.Holder == holder)
            return puck;
        return puck.Behind(Path(told, scale, holder), sheet);
    }

    /// <summary>What is believed of a scale and a holder; of either alone where they were never used together.</summary>
    public static CupPathBelief Path(IEnumerable<TaughtBy> newestFirst, string? scale, string holder)
    {
        CupPathBelief? byScale = null,
            byHolder = null;
        foreach (var t in newestFirst)
        {
            if (t.Learned.Puck is not { } puck)
                continue;
            var (sameScale, sameHolder) = (t.Learned.Scale == scale, t.Learned.Holder == holder);
            if (sameScale && sameHolder)
                return puck.LearnedPath;
            if (sameScale)
                byScale ??= puck.LearnedPath;
            if (sameHolder)
                byHolder ??= puck.LearnedPath;
        }

        var any = CupPathBelief.Unknown;
        return new(byHolder?.Spout ?? any.Spout, byScale?.Scale ?? any.Scale);
    }

    /// <summary>How long a hand goes on after the cue: the same brewer's on the same machine.</summary>
    public static double LetGoSeconds(IEnumerable<TaughtBy> newestFirst, TaughtBy next) =>
        LetGo.Expected([
            .. newestFirst
                .Where(t => t.BrewerId == next.BrewerId && t.MachineId == next.MachineId)
                .Select(t => t.Learned.LetGoSeconds)
                .OfType<double>()
                .Reverse(),
        ]);
}
