namespace SpringLoft.Server.Tests;

/// <summary>A tiny school with an open class, and the real program on it; shared by the tests of one class.</summary>
public sealed class ServerAndSchool : IDisposable
{
    internal TinySchool School { get; }

    internal RealServer Server { get; }

    public ServerAndSchool()
    {
        School = new TinySchool(SpringLoft.Server.Hosting.KeyRingSeal.Of);
        School.OpenClass();
        Server = RealServer.Start(School.Folder);
    }

    internal string ClassPath => $"/api/classes/{School.Class.Value}";

    public void Dispose()
    {
        Server.Dispose();
        School.Dispose();
    }
}
