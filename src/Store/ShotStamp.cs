using Microsoft.EntityFrameworkCore;

namespace RuddySpring.Store;

/// <summary>
/// A number that is another one as soon as anything has changed that is learned from many shots: what they measured and were
/// pulled with, and the beans, machines and baskets themselves. Triggers of the database draw it by chance, so that it is right
/// whoever writes, and a restored backup never shows a number that was there before.
/// </summary>
public static class ShotStamp
{
    private const string Renew = "BEGIN UPDATE ShotStamp SET Stamp = random(); END;";

    /// <summary>SQL that makes the number and its triggers. A cause, a taste or a photo is nothing that is learned from.</summary>
    public static readonly string CreateSql = $"""
        CREATE TABLE ShotStamp (Stamp INTEGER NOT NULL);
        INSERT INTO ShotStamp VALUES (random());
        CREATE TRIGGER ShotStampShotInsert AFTER INSERT ON Shots {Renew}
        CREATE TRIGGER ShotStampShotDelete AFTER DELETE ON Shots {Renew}
        CREATE TRIGGER ShotStampShotUpdate AFTER UPDATE OF PulledAt, BrewerId, MachineId, BagId, GrinderId, BasketId,
          GrindSetting, DoseGrams, YieldGrams, PlanName, Measures, DeletedAt ON Shots {Renew}
        CREATE TRIGGER ShotStampTraceInsert AFTER INSERT ON Traces {Renew}
        CREATE TRIGGER ShotStampTraceDelete AFTER DELETE ON Traces {Renew}
        CREATE TRIGGER ShotStampTraceUpdate AFTER UPDATE OF Learned ON Traces {Renew}
        CREATE TRIGGER ShotStampBag AFTER UPDATE ON Bags {Renew}
        CREATE TRIGGER ShotStampMachine AFTER UPDATE ON Machines {Renew}
        CREATE TRIGGER ShotStampBasket AFTER UPDATE ON Baskets {Renew}
        """;

    /// <summary>SQL that takes them away.</summary>
    public static readonly string DropSql =
        string.Concat(
            new[]
            {
                "ShotInsert",
                "ShotDelete",
                "ShotUpdate",
                "TraceInsert",
                "TraceDelete",
                "TraceUpdate",
                "Bag",
                "Machine",
                "Basket",
            }.Select(t => $"DROP TRIGGER ShotStamp{t};")
        ) + "DROP TABLE ShotStamp;";

    /// <summary>The number now.</summary>
    public static async Task<long> OfAsync(RuddyContext db, CancellationToken cancel) =>
        (await db.Database.SqlQuery<long>($"SELECT Stamp AS Value FROM ShotStamp").ToListAsync(cancel))[0];
}
