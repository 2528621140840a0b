using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>What a function of one number comes to along its way (ISO 32000-2, 7.10), as shadings take colours from it.</summary>
/// <remarks>Tables of samples (type 0), exponentials (2) and functions joined end to end (3); a calculator's program (4) is not carried out.</remarks>
internal static class ColourFunction
{
    /// <summary>Looked at are so many places from end to end.</summary>
    private const int Looks = 32;

    /// <summary>Functions within functions.</summary>
    private const int Deepest = 6;

    /// <summary>Its values at places along its way.</summary>
    /// <param name="function">One, or an array of one for each part of the colour.</param>
    /// <param name="domain">Where the way begins and ends; 0 and 1 if nothing says.</param>
    /// <returns>Null where they cannot be told.</returns>
    public static IEnumerable<double[]>? Along(IToken function, double[]? domain, PdfObjects objects)
    {
        var (from, to) = domain is [var first, var last] ? (first, last) : (0.0, 1.0);
        List<double[]> values = [];
        for (var look = 0; look <= Looks; look++)
        {
            var at = from + ((to - from) * look / Looks);
            double[]? value = function is ArrayToken several
                ? [.. several.Data.Select(one => At(objects.Resolve(one), at, objects, 0) is [var part] ? part : double.NaN)]
                : At(function, at, objects, 0);
            if (value is null || !value.All(double.IsFinite))
                return null;
            values.Add(value);
        }
        return values;
    }

    private static double[]? At(IToken? function, double at, PdfObjects objects, int depth)
    {
        var dictionary = PdfObjects.AsDictionary(function);
        if (depth > Deepest || objects.Numbers(dictionary, "Domain", 2) is not { } domain || domain[1] < domain[0])
            return null;
        at = Math.Clamp(at, domain[0], domain[1]);
        return objects.Number(dictionary, "FunctionType") switch
        {
            0 when function is StreamToken samples => OfSamples(samples, at, domain, objects),
            2 => Exponential(dictionary!, at, objects),
            3 => Joined(dictionary!, at, domain, objects, depth),
            _ => null,
        };
    }

    private static double[]? Exponential(DictionaryToken function, double at, PdfObjects objects)
    {
        var (first, last) = (NumbersOf(function, "C0", objects) ?? [0], NumbersOf(function, "C1", objects) ?? [1]);
        if (first.Length != last.Length || objects.Number(function, "N") is not { } exponent)
            return null;
        var part = Math.Pow(at, exponent);
        return [.. first.Zip(last, (from, to) => from + (part * (to - from)))];
    }

    private static double[]? Joined(DictionaryToken function, double at, double[] domain, PdfObjects objects, int depth)
    {
        if (objects.Array(function, "Functions") is not { Count: > 0 } parts || objects.Numbers(function, "Bounds", parts.Count - 1) is not { } bounds
            || objects.Numbers(function, "Encode", 2 * parts.Count) is not { } encode)
            return null;
        var index = bounds.Count(bound => at >= bound);
        var (from, to) = (index == 0 ? domain[0] : bounds[index - 1], index == bounds.Length ? domain[1] : bounds[index]);
        var within = to > from ? (at - from) / (to - from) : 0;
        return At(objects.Resolve(parts[index]), encode[2 * index] + (within * (encode[(2 * index) + 1] - encode[2 * index])), objects, depth + 1);
    }

    private static double[]? OfSamples(StreamToken function, double at, double[] domain, PdfObjects objects)
    {
        var dictionary = function.StreamDictionary;
        if (objects.Numbers(dictionary, "Size", 1) is not [>= 1 and <= 1 << 16 and var size] || objects.Number(dictionary, "BitsPerSample") is not { } bits || bits is not (8 or 16)
            || NumbersOf(dictionary, "Range", objects) is not { Length: > 0 } range || range.Length % 2 != 0)
            return null;
        var (parts, width) = (range.Length / 2, (int)bits / 8);
        var bytes = objects.Unpack(function).Span;
        if (bytes.Length < size * parts * width)
            return null;
        var decode = objects.Numbers(dictionary, "Decode", range.Length) ?? range;
        var encode = objects.Numbers(dictionary, "Encode", 2) ?? [0, size - 1];
        var place = domain[1] > domain[0] ? (at - domain[0]) / (domain[1] - domain[0]) : 0;
        // Between two samples the nearest one is taken: colours are compared with more room than lies between them.
        var sample = (int)Math.Round(Math.Clamp(encode[0] + (place * (encode[1] - encode[0])), 0, size - 1));
        var values = new double[parts];
        for (var part = 0; part < parts; part++)
        {
            var from = ((sample * parts) + part) * width;
            var raw = width == 1 ? bytes[from] / 255.0 : ((bytes[from] << 8) | bytes[from + 1]) / 65535.0;
            values[part] = decode[2 * part] + (raw * (decode[(2 * part) + 1] - decode[2 * part]));
        }
        return values;
    }

    private static double[]? NumbersOf(DictionaryToken dictionary, string key, PdfObjects objects) =>
        objects.Array(dictionary, key) is { } listed ? objects.Numbers(dictionary, key, listed.Count) : null;
}
