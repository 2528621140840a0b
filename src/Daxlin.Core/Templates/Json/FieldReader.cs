using System.Collections.Immutable;
using Daxlin.Core.Json;
using Daxlin.Core.Templates.Tidy;

namespace Daxlin.Core.Templates.Json;

/// <summary>Reads the <c>fields</c> of a template.</summary>
internal static class FieldReader
{
    public static ImmutableArray<FieldRule> ReadAll(JsonPlace document, FaultList faults)
    {
        if (document.Find("fields") is not { } fields)
        {
            faults.Add(document, "The key “fields” is missing.");
            return [];
        }
        if (!fields.IsObject || fields.Members.Length > SharedParts.Most)
        {
            faults.Add(fields, $"An object of at most {SharedParts.Most} fields is wanted here.");
            return [];
        }
        NameFaults.OfFields(fields.Members, faults);
        return [.. fields.Members.Select(member => Read(member.Key, member.Value, faults))];
    }

    private static FieldRule Read(string name, JsonPlace place, FaultList faults)
    {
        SharedParts.CheckName(name, place, faults);
        faults.IsObjectOf(place, "where", "type", "shape", "tidy", "required", "untied");
        var where = ImmutableArray<Whereabouts>.Empty;
        if (place.Find("where") is not { } list)
            faults.Add(place, "The key “where” is missing: where the value is.");
        else if (list is { IsArray: true, Items.IsEmpty: true })
            faults.Add(list, "At least one of the whereabouts is wanted here.");
        else
            where = [.. (list.IsArray ? list.Items : [list]).Select(item => WhereaboutsReader.Read(item, faults)).OfType<Whereabouts>()];
        var tidy = TidyReader.ReadAll(place.Find("tidy"), faults);
        if (tidy.Any(step => step is SplitUnit))
            faults.Add(place.Find("tidy")!, "Only a column can be split into number and unit; take the number of a field by “take”.");
        return new FieldRule(
            name,
            SharedParts.ReadKind(place.Find("type"), name, faults),
            where,
            faults.Pattern(place.Find("shape")),
            tidy,
            faults.Flag(place.Find("required"), TradeNames.IsRequiredField(name)),
            SharedParts.ReadUntied(place, faults));
    }
}
