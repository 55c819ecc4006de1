using WarmConduit.Core.Rigs;

namespace WarmConduit.Server.Hosting;

/// <summary>A request body that can say what is wrong with it.</summary>
internal interface IChecked
{
    /// <summary>Faults by field; empty when all is well.</summary>
    IEnumerable<RigFault> Check();
}

/// <summary>Refuses bodies that find fault with themselves before the endpoint sees them.</summary>
internal sealed class CheckedBodies : IEndpointFilter
{
    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        foreach (object? argument in context.Arguments)
        {
            if (argument is not IChecked body) continue;
            var faults = body.Check().ToList();
            if (faults.Count > 0) return ProblemAnswers.Refused(faults);
        }
        return await next(context);
    }

    /// <summary>Faults of a rig inside a body, under the field <c>rig</c>.</summary>
    public static IEnumerable<RigFault> Of(Rig rig) => RigCheck.Check(rig).Select(f => f with { Path = "rig." + f.Path });
}
