using UglyToad.PdfPig;
using UglyToad.PdfPig.Tokenization.Scanner;
using UglyToad.PdfPig.Tokens;

namespace Daxlin.Reading.Drawing;

/// <summary>Which layers of a document are off when it is opened (ISO 32000-2, 8.11): by its default configuration.</summary>
internal sealed class OptionalContent
{
    /// <summary>Under which content says which group it belongs to.</summary>
    public static NameToken Key { get; } = NameToken.Create("OC");

    private static readonly NameToken Properties = NameToken.Create("OCProperties");
    private static readonly NameToken Default = NameToken.Create("D");
    private static readonly NameToken Off = NameToken.Create("OFF");
    private static readonly NameToken On = NameToken.Create("ON");
    private static readonly NameToken BaseState = NameToken.Create("BaseState");
    private static readonly NameToken Groups = NameToken.Create("OCGs");
    private static readonly NameToken Policy = NameToken.Create("P");

    private readonly IPdfTokenScanner scanner;
    private readonly List<IToken> off = [];
    private readonly List<IToken> on = [];
    private readonly bool isOffUnlessSaid;

    public OptionalContent(PdfDocument document)
    {
        scanner = document.Structure.TokenScanner;
        if (!document.Structure.Catalog.CatalogDictionary.TryGet<DictionaryToken>(Properties, scanner, out var properties) || !properties.TryGet<DictionaryToken>(Default, scanner, out var byDefault))
            return;
        isOffUnlessSaid = byDefault.TryGet<NameToken>(BaseState, scanner, out var state) && state.Data == "OFF";
        Add(byDefault, Off, off);
        Add(byDefault, On, on);
    }

    private void Add(DictionaryToken configuration, NameToken key, List<IToken> groups)
    {
        if (!configuration.TryGet<ArrayToken>(key, scanner, out var listed))
            return;
        foreach (var one in listed.Data)
        {
            if (Resolved(one) is { } group)
                groups.Add(group);
        }
    }

    /// <summary>A dictionary, or the one that is referred to; null for anything else.</summary>
    public DictionaryToken? Resolved(IToken token) => token switch
    {
        DictionaryToken own => own,
        IndirectReferenceToken reference => scanner.Get(reference.Data)?.Data as DictionaryToken,
        _ => null,
    };

    /// <summary>Says that what belongs to a group, or to some groups together, is not drawn.</summary>
    /// <param name="token">A group, a membership of several, or a reference to one.</param>
    public bool Hides(IToken? token)
    {
        if (token is null || (off.Count == 0 && !isOffUnlessSaid) || Resolved(token) is not { } content)
            return false;
        if (!content.TryGet(Groups, out var listed))
            return IsOff(content);
        var groups = (listed is IndirectReferenceToken reference ? scanner.Get(reference.Data)?.Data : listed) switch
        {
            ArrayToken several => several.Data.Select(Resolved).OfType<DictionaryToken>().ToList(),
            DictionaryToken one => [one],
            _ => [],
        };
        if (groups.Count == 0)
            return false;
        return (content.TryGet<NameToken>(Policy, scanner, out var policy) ? policy.Data : "AnyOn") switch
        {
            "AllOn" => groups.Exists(IsOff),
            "AnyOff" => !groups.Exists(IsOff),
            "AllOff" => !groups.TrueForAll(IsOff),
            _ => groups.TrueForAll(IsOff),
        };
    }

    private bool IsOff(DictionaryToken group) => off.Contains(group) || (isOffUnlessSaid && !on.Contains(group));
}
