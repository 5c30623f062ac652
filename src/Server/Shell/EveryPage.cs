using RuddySpring.Server.Bench;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Household;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;

namespace RuddySpring.Server.Shell;

/// <summary>What every page shows, as it is told one by one elsewhere.</summary>
/// <param name="Prepare">Null without a machine.</param>
/// <param name="Session">Null without a machine.</param>
public sealed record EveryPageView(HouseholdView Household, BenchView Bench, SheetAnswer? Prepare, SessionView? Session);

/// <summary>What every page shows, in one answer: each question of its own costs a slow phone as much as a small file.</summary>
public static class EveryPage
{
    public static void MapEveryPage(this IEndpointRouteBuilder api) => api.MapGet("/every-page", ViewAsync);

    private static async Task<EveryPageView> ViewAsync(
        RuddyContext db,
        ServerOptions options,
        TimeProvider time,
        SessionDesk desk,
        CancellationToken cancel
    )
    {
        var household = await HouseholdEndpoints.CurrentAsync(db, options, cancel);
        var bench = await BenchReader.OfAsync(db, time, cancel);
        return bench.Machines.Count == 0
            ? new(household, bench, null, null)
            : new(
                household,
                bench,
                await PrepareEndpoints.CurrentAsync(db, desk, cancel),
                await SessionEndpoints.CurrentAsync(desk, db, cancel)
            );
    }
}
