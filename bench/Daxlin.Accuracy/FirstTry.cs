using System.Text.Json;

namespace Daxlin.Accuracy;

/// <summary>What a family came to when it was met for the first time, by a template written on two of its invoices: <c>first.json</c>.</summary>
/// <remarks>Whatever was mended since makes the later figures better; this one says how good it would be with the next stranger.</remarks>
public sealed record FirstTry(int Cells, int Exact, int FalseClear, int NeedlessHold)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>Null for a family whose first figures nobody wrote down.</summary>
    public static FirstTry? Of(string directory) => Path.Combine(directory, "first.json") is var file && File.Exists(file)
        ? JsonSerializer.Deserialize<FirstTry>(File.ReadAllText(file), Json) : null;

    public override string ToString() => string.Create(
        System.Globalization.CultureInfo.InvariantCulture, $"{100.0 * Exact / Cells:F2} %, {FalseClear}, {NeedlessHold}");
}
