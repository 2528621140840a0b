using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>Which layers of a document are off when it is opened (ISO 32000-2, 8.11): by its default configuration.</summary>
internal sealed class OptionalContent
{
    private readonly PdfObjects objects;
    private readonly HashSet<IndirectReference> off;
    private readonly HashSet<IndirectReference> on;
    private readonly bool isOffUnlessSaid;

    public OptionalContent(DictionaryToken catalog, PdfObjects objects)
    {
        this.objects = objects;
        var byDefault = objects.Dictionary(objects.Dictionary(catalog, "OCProperties"), "D");
        isOffUnlessSaid = objects.Name(byDefault, "BaseState") == "OFF";
        (off, on) = (GroupsOf(byDefault, "OFF"), GroupsOf(byDefault, "ON"));
    }

    private HashSet<IndirectReference> GroupsOf(DictionaryToken? configuration, string key) =>
        [.. (objects.Array(configuration, key) ?? []).OfType<IndirectReferenceToken>().Select(reference => reference.Data)];

    /// <summary>Says that what belongs to a group, or to some groups together, is not drawn.</summary>
    /// <param name="token">A reference to a group, or a membership of several.</param>
    public bool Hides(IToken? token)
    {
        if (token is null || (off.Count == 0 && !isOffUnlessSaid) || PdfObjects.AsDictionary(objects.Resolve(token)) is not { } content)
            return false;
        if (!content.Data.TryGetValue("OCGs", out var listed))
            return IsOff(token);
        IReadOnlyList<IToken> groups = objects.Resolve(listed) switch
        {
            ArrayToken several => [.. several.Data.Where(one => objects.Resolve(one) is DictionaryToken)],
            DictionaryToken => [listed],
            _ => [],
        };
        if (groups.Count == 0)
            return false;
        return (objects.Name(content, "P") ?? "AnyOn") switch
        {
            "AllOn" => groups.Any(IsOff),
            "AnyOff" => !groups.Any(IsOff),
            "AllOff" => !groups.All(IsOff),
            _ => groups.All(IsOff),
        };
    }

    private bool IsOff(IToken group) => group is IndirectReferenceToken { Data: var reference } && (off.Contains(reference) || (isOffUnlessSaid && !on.Contains(reference)));
}
