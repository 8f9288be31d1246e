using System.Security.Cryptography;
using Acornima.Ast;
using Jint;
using Jint.Native;
using Jint.Native.Object;
using Jint.Runtime;

namespace SpringLoft.Formats.Together;

/// <summary>
/// A text that several write at once: a document of Yjs with one text in it, read and written by Yjs itself, bundled as yjs.js
/// (made by `npm run server-text` in client/). The same updates in any order come to the same text in every browser and here.
/// Not safe for several threads.
/// </summary>
public sealed class SharedText
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);
    private static readonly Lazy<Prepared<Script>> Yjs = new(() =>
    {
        using var script = typeof(SharedText).Assembly.GetManifestResourceStream("yjs.js")!;
        using var reader = new StreamReader(script);
        return Engine.PrepareScript(reader.ReadToEnd());
    });

    private readonly Engine engine = new(o => o.TimeoutInterval(Patience).LimitRecursion(10_000));
    private readonly ObjectInstance made;

    /// <summary>An empty one.</summary>
    public SharedText()
    {
        // All that the script has of the world: numbers that nobody can foresee.
        engine.SetValue("chance", new Func<int, byte[]>(RandomNumberGenerator.GetBytes));
        engine.Execute("globalThis.crypto = { getRandomValues: a => { new Uint8Array(a.buffer, a.byteOffset, a.byteLength).set(chance(a.byteLength)); return a; } }");
        engine.Execute(Yjs.Value);
        made = engine.Invoke("sharedText").AsObject();
    }

    /// <summary>One from what was kept of it.</summary>
    /// <exception cref="InvalidDataException">It is none.</exception>
    public SharedText(byte[] state) : this() => Apply(state);

    /// <summary>As it reads now.</summary>
    public string Text => Ask("text").AsString();

    /// <summary>How many characters (UTF-16) it has.</summary>
    public int Length => (int)Ask("length").AsNumber();

    /// <summary>Does something in it wait for what has not come?</summary>
    public bool Lacks => Ask("lacks").AsBoolean();

    /// <summary>Takes in what somebody wrote. What it has already, it has once.</summary>
    /// <exception cref="InvalidDataException">It is no update of Yjs; the text may have part of it then.</exception>
    public void Apply(byte[] update)
    {
        try { Ask("apply", Bytes(update)); }
        catch (Exception e) when (e is JavaScriptException or TimeoutException or RecursionDepthOverflowException or InvalidOperationException or ArgumentException)
        { throw new InvalidDataException("That is no update of a shared text.", e); }
    }

    /// <summary>All of it, to be kept.</summary>
    public byte[] State() => Out(Ask("state"));

    /// <summary>Up to what it knows of each writer.</summary>
    public byte[] Vector() => Out(Ask("vector"));

    /// <summary>What somebody lacks who knows so much.</summary>
    /// <exception cref="InvalidDataException">That says nothing about anybody.</exception>
    public byte[] Since(byte[] vector)
    {
        try { return Out(Ask("since", Bytes(vector))); }
        catch (Exception e) when (e is JavaScriptException or TimeoutException or InvalidOperationException or ArgumentException) { throw new InvalidDataException("That is no state vector.", e); }
    }

    /// <summary>Changes the text to another, in the one stretch in which they differ.</summary>
    /// <returns>The update that does it.</returns>
    public byte[] Become(string text) => Out(Ask("become", text));

    private JsValue Ask(string what, params JsValue[] given)
    {
        engine.Constraints.Reset();
        return engine.Call(made.Get(what), made, given);
    }

    private JsValue Bytes(byte[] bytes) => engine.Intrinsics.Uint8Array.Construct(bytes);

    private static byte[] Out(JsValue value) => value.AsUint8Array();
}
