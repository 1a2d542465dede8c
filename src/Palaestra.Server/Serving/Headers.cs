namespace Palaestra.Server.Serving;

/// <summary>What a browser may load and do with our pages.</summary>
public static class Headers
{
    private const string Reference = "reference";
    private const string OwnPolicy = "own policy";

    public static void AddHeaders(this IServiceCollection services) =>
        services
            .AddSecurityHeaderPolicies()
            .SetDefaultPolicy(Policy(_ => { }))
            // The reference begins with a script inside the page; the nonce lets that one through and no other.
            .AddPolicy(Reference, Policy(csp => csp.AddScriptSrc().Self().WithNonce()))
            .AddPolicy(OwnPolicy, WithoutContentPolicy());

    public static TBuilder AsReference<TBuilder>(this TBuilder page)
        where TBuilder : IEndpointConventionBuilder => page.WithSecurityHeadersPolicy(Reference);

    /// <summary>A page that says itself what may run in it, and gives nobody its address.</summary>
    public static TBuilder WithOwnContentPolicy<TBuilder>(this TBuilder page)
        where TBuilder : IEndpointConventionBuilder => page.WithSecurityHeadersPolicy(OwnPolicy);

    private static HeaderPolicyCollection WithoutContentPolicy()
    {
        var policy = new HeaderPolicyCollection().AddDefaultSecurityHeaders().AddReferrerPolicyNoReferrer();
        policy.Remove("Content-Security-Policy");
        return policy;
    }

    private static HeaderPolicyCollection Policy(Action<CspBuilder> more) =>
        new HeaderPolicyCollection()
            .AddDefaultSecurityHeaders()
            .AddContentSecurityPolicy(csp =>
            {
                csp.AddDefaultSrc().Self();
                // styled-components writes its rules into style elements.
                csp.AddStyleSrc().Self().UnsafeInline();
                // A picture is shown from the tablet's own memory before it is kept, if it ever is.
                csp.AddImgSrc().Self().Data().Blob();
                csp.AddFrameAncestors().None();
                more(csp);
            });
}
