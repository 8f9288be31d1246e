using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>Messages to a class.</summary>
public sealed class Notices(Premises premises)
{
    /// <summary>Posts a notice.</summary>
    public void Post(Caller by, ClassId id, string? text)
    {
        var body = Refusals.Needed(text, "text", "The notice", 4000);
        premises.Db.Write(c =>
        {
            ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
            var now = premises.Clock.Now;
            ClassStore.AddNotice(c, id, by.Id, body, now);
            Premises.Add(c, by, now, new("posted notice", "class", id.Value, id, body.Length > 60 ? body[..60] + "…" : body));
        });
    }
}
