using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Pulls;
using RuddySpring.Store;

namespace RuddySpring.Server.Plans;

/// <summary>The pull plans there are: those that ship, and the household's own.</summary>
public static class PlanLibrary
{
    /// <summary>All of them, the one to start with first.</summary>
    public static async Task<IReadOnlyList<PullPlan>> AllAsync(RuddyContext db, CancellationToken cancel) =>
        [
            .. ShippedPlans.All,
            .. (await db.Plans.AsNoTracking().Where(p => p.DeletedAt == null).OrderBy(p => p.Id).ToListAsync(cancel))
                .Where(p => Odd.Reason(p.Plan) is null)
                .Select(p => p.Keyed),
        ];

    /// <summary>Keys of the plans that a machine can pull, the one to start with first: on a pump or a stepped lever that made
    /// for it.</summary>
    public static IReadOnlyList<string> KeysFor(Machine machine, IReadOnlyList<PullPlan> plans) =>
        [.. Suiting(machine, plans).Select(p => p.Key)];

    /// <summary>The plan with a key where a machine can pull it; otherwise the first that it can.</summary>
    public static PullPlan For(Machine machine, IReadOnlyList<PullPlan> plans, string key) =>
        plans.FirstOrDefault(p => p.Key == key && p.Suits(machine)) ?? Suiting(machine, plans).First();

    private static IEnumerable<PullPlan> Suiting(Machine machine, IReadOnlyList<PullPlan> plans) =>
        plans
            .Where(p => p.Suits(machine))
            .OrderByDescending(p => machine.PressureBy == PressureBy.Strokes && p.Families is { Count: 1 });
}
