using System.Data.Common;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>
/// Keeps the count of blind spots of every class, so that the board need not look through all folders of all classes: a
/// class is counted anew only after something was written in it.
/// </summary>
public sealed class BlindCounts(Premises premises)
{
    /// <summary>Counts classes anew that have changed, as many as named at the most.</summary>
    /// <returns>How many were counted.</returns>
    public int Refresh(int most)
    {
        var counted = premises.Db.Read(c => BlindStore.Stale(c, most).Select(s => (s.Class, s.AuditId, Spots: Arranging.Blind(c, s.Class).Count)).ToList());
        if (counted.Count == 0) return 0;
        try
        {
            premises.Db.Write(c => counted.ForEach(x => BlindStore.Set(c, x.Class, x.Spots, x.AuditId)));
        }
        catch (DbException)
        {
            // Only a count that is kept: where it can't be (a full disk), the board shows the one of before.
            return 0;
        }
        return counted.Count;
    }
}
