using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore.Metadata;
using RuddySpring.Store;

namespace RuddySpring.Server.Ledger;

/// <summary>A query that is made once for all questions. It belongs to one model, and a household that is visited is another
/// server in the same process with another model: so it is made once for each.</summary>
/// <param name="make">Makes it.</param>
internal sealed class MadeOnce<TQuery>(Func<TQuery> make)
    where TQuery : class
{
    private readonly ConditionalWeakTable<IModel, TQuery> _made = [];

    /// <summary>The query for a store.</summary>
    public TQuery For(RuddyContext db) => _made.GetValue(db.Model, _ => make());
}
