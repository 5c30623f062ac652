using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Ledger;

/// <summary>Keeps the words that a search looks through in step with what a shot refers to.</summary>
public static class ShotText
{
    /// <summary>Loads what the shot refers to and sets its search text.</summary>
    public static async Task SetAsync(RuddyContext db, Shot shot)
    {
        shot.Machine = await db.Machines.FindAsync(shot.MachineId);
        shot.Bag = shot.BagId is { } bag ? await db.Bags.FindAsync(bag) : null;
        shot.Brewer = shot.BrewerId is { } brewer ? await db.Brewers.FindAsync(brewer) : null;
        shot.Grinder = shot.GrinderId is { } grinder ? await db.Grinders.FindAsync(grinder) : null;
        ShotRecording.SetSearchText(shot);
    }
}
