using CsCheck;

namespace SpringLoft.Core.Tests;

internal static class Any
{
    /// <summary>One of the values given.</summary>
    internal static Gen<T> Of<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(i => values[i]);
}
