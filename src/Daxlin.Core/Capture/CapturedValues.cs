using System.Collections.Immutable;

namespace Daxlin.Core.Capture;

/// <summary>Puts one value among others of a header or of a row.</summary>
public static class CapturedValues
{
    /// <summary>The values with another in the place of the one of its name, or behind all others.</summary>
    /// <param name="value">Null takes the value away.</param>
    public static ImmutableArray<CapturedValue> With(this ImmutableArray<CapturedValue> values, string name, CapturedValue? value)
    {
        for (var at = 0; at < values.Length; at++)
        {
            if (values[at].Name == name)
                return value is null ? values.RemoveAt(at) : values.SetItem(at, value);
        }
        return value is null ? values : values.Add(value);
    }
}
