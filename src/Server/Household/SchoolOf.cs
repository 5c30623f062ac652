using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Reasoning;
using RuddySpring.Store;

namespace RuddySpring.Server.Household;

/// <summary>By which school somebody judges: a person's own, or else the household's.</summary>
public static class SchoolOf
{
    /// <summary>The school of a person; of nobody, the household's.</summary>
    public static async Task<School> BrewerAsync(RuddyContext db, int? brewerId, CancellationToken cancel)
    {
        var own = await db.Brewers.Where(b => b.Id == brewerId).Select(b => b.School).SingleOrDefaultAsync(cancel);
        return SchoolList.Find(own ?? await db.Households.Select(h => h.School).SingleAsync(cancel));
    }
}
