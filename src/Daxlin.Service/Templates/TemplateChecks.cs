using System.Collections.Immutable;
using Daxlin.Core.Json;
using Daxlin.Core.Templates;

namespace Daxlin.Service.Templates;

/// <summary>What is wrong with a template document, in the interface's form.</summary>
internal static class TemplateChecks
{
    public static TemplateChecked Record(string file, Template? template, ImmutableArray<JsonFault> faults) =>
        new(
            file, template?.Name ?? "", Records(faults),
            template is null ? [] : [.. TemplateSentences.Of(template).Select(one => new TemplateSentenceRecord(one.Place, one.Says))]);

    public static ImmutableArray<TemplateFaultRecord> Records(ImmutableArray<JsonFault> faults) =>
        [.. faults.Select(fault => new TemplateFaultRecord(fault.Place, fault.Line, fault.Message, fault.IsWarning ? "warning" : "fault"))];
}
