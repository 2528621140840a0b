namespace Daxlin.ServiceBench;

/// <summary>Templates of made-up vendors, as many as wanted, beside those whose invoices are captured.</summary>
internal static class MadeTemplates
{
    public static IEnumerable<string> Of(IReadOnlyList<string> own, int count)
    {
        foreach (var document in own)
            yield return document;
        for (var index = own.Count; index < count; index++)
        {
            var other = own[index % own.Count];
            var vendor = $"Vendor of Ropes No. {index * 7919 % 100_003}";
            var name = System.Text.Json.Nodes.JsonNode.Parse(other)!.AsObject();
            name["name"] = $"made-{index}";
            name["vendor"] = vendor;
            name["recognise"]!["must"] = new System.Text.Json.Nodes.JsonArray(vendor);
            yield return name.ToJsonString();
        }
    }
}
